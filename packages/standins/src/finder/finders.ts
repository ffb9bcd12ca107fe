import type { Firm } from '../world/world';

/** One of the simulated finders: what it knows, what it charges for, how it behaves. */
export interface Manner {
  id: string;
  key: string;
  priceCents: number;
  pays: 'valid' | 'answer' | 'question';
  perSecond: number;
  /** How often it knows somebody who stands in public sources, and somebody who does not. */
  knows: { known: number; others: number };
  /** How often what it answers is wrong. */
  wrong: number;
  /** Firms that it knows; all without one. */
  only?: (firm: Firm) => boolean;
  delayMs?: number;
  /** How many of its seconds it is out of order. */
  down?: number;
  /** Credits of its plan: so many charges of a month (UTC) take one each in place of money. */
  credits?: number;
}

/** Cheap and poor, dear and good with a plan, good only in Ireland, slow, often down; the first one is what they are measured by. */
export const FINDERS: readonly Manner[] = [
  {
    id: 'lantern',
    key: 'lantern-demo-key',
    priceCents: 15,
    pays: 'valid',
    perSecond: 40,
    knows: { known: 0.72, others: 0.72 },
    wrong: 0.08,
  },
  {
    id: 'candle',
    key: 'candle-demo-key',
    priceCents: 4,
    pays: 'valid',
    perSecond: 40,
    knows: { known: 0.5, others: 0.05 },
    wrong: 0.25,
  },
  {
    id: 'beacon',
    key: 'beacon-demo-key',
    priceCents: 28,
    pays: 'answer',
    perSecond: 20,
    knows: { known: 0.95, others: 0.7 },
    wrong: 0.02,
    credits: 40,
  },
  {
    id: 'seamark',
    key: 'seamark-demo-key',
    priceCents: 9,
    pays: 'valid',
    perSecond: 20,
    knows: { known: 0.95, others: 0.85 },
    wrong: 0.03,
    only: ({ country }) => country === 'IE',
  },
  {
    id: 'glowworm',
    key: 'glowworm-demo-key',
    priceCents: 2,
    pays: 'question',
    perSecond: 10,
    knows: { known: 0.75, others: 0.2 },
    wrong: 0.1,
    delayMs: 700,
  },
  {
    id: 'flicker',
    key: 'flicker-demo-key',
    priceCents: 6,
    pays: 'answer',
    perSecond: 30,
    knows: { known: 0.7, others: 0.4 },
    wrong: 0.1,
    down: 0.4,
  },
];
