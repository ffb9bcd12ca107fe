/** One of the simulated services that list phones: what it knows, what it charges for, how it behaves. */
export interface PhoneManner {
  id: string;
  key: string;
  priceCents: number;
  pays: 'answer' | 'question';
  perSecond: number;
  /** How often it lists somebody's line at home, and their mobile. */
  knows: { landline: number; mobile: number };
  /** How often a number it lists is somebody else's by now. */
  old: number;
  /** How many of its seconds it is out of order. */
  down?: number;
}

/** Cheap and full of old numbers; the usual one; dear, with the mobiles, and often down. */
export const PHONE_SERVICES: readonly PhoneManner[] = [
  {
    id: 'doorchime',
    key: 'doorchime-demo-key',
    priceCents: 1,
    pays: 'question',
    perSecond: 60,
    knows: { landline: 0.45, mobile: 0 },
    old: 0.15,
  },
  {
    id: 'bellpull',
    key: 'bellpull-demo-key',
    priceCents: 3,
    pays: 'answer',
    perSecond: 60,
    knows: { landline: 0.7, mobile: 0.15 },
    old: 0.05,
  },
  {
    id: 'switchyard',
    key: 'switchyard-demo-key',
    priceCents: 11,
    pays: 'answer',
    perSecond: 40,
    knows: { landline: 0.55, mobile: 0.85 },
    old: 0.03,
    down: 0.25,
  },
];
