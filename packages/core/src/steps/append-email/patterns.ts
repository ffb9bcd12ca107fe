import { remembered } from '../../text/remembered';
import { nameWays, type Named, type NameWays } from './name-ways';

type Make = (first: string, last: string, middle: string) => string;

/** How a firm makes addresses of names, with how common each is. Common practice, no source. */
const MAKERS = {
  'first.last': [0.34, (f, l) => `${f}.${l}`],
  flast: [0.19, (f, l) => f[0]! + l],
  first: [0.15, (f) => f],
  'f.last': [0.06, (f, l) => `${f[0]!}.${l}`],
  firstlast: [0.05, (f, l) => f + l],
  firstl: [0.04, (f, l) => f + l[0]!],
  first_last: [0.02, (f, l) => `${f}_${l}`],
  last: [0.02, (_, l) => l],
  'last.first': [0.015, (f, l) => `${l}.${f}`],
  lastf: [0.015, (f, l) => l + f[0]!],
  'first-last': [0.01, (f, l) => `${f}-${l}`],
  'first.l': [0.01, (f, l) => `${f}.${l[0]!}`],
  initials: [0.01, (f, l) => f[0]! + l[0]!],
  lastfirst: [0.005, (f, l) => l + f],
  'first.m.last': [0.005, (f, l, m) => (m === '' ? '' : `${f}.${m}.${l}`)],
  fmlast: [0.005, (f, l, m) => (m === '' ? '' : f[0]! + m + l)],
} as const satisfies Record<string, readonly [number, Make]>;

type Usual = keyof typeof MAKERS;

/**
 * The names cut to so many letters each, the first name in front (`fl`) or behind (`lf`): `cut fl 5 2` makes marenoa of Maren Oakhill. Firms whose accounts may
 * have few letters do so. Which letters is only ever learned.
 */
export type Cut = `cut ${'fl' | 'lf'} ${number} ${number}`;
const CUT = /^cut (fl|lf) (\d+) (\d+)$/;
export const isCut = (made: string): made is Cut => made.startsWith('cut ');

export type Pattern = Usual | Cut;
export const PATTERNS = Object.keys(MAKERS) as Usual[];

/** An address that no pattern makes of the name. */
export const OTHER = 'other';
export type Made = Pattern | typeof OTHER;

/** A pattern's share before anything was learned. */
export const usualShare = (pattern: Pattern): number => (isCut(pattern) ? 0 : MAKERS[pattern][0]);

const makerOf = (pattern: Pattern): Make => (isCut(pattern) ? cutter(pattern) : MAKERS[pattern][1]);
const cutter = remembered((cut: string): Make => {
  const [, order, one, other] = CUT.exec(cut)!;
  const [i, j] = [Number(one), Number(other)];
  return order === 'fl' ? (f, l) => f.slice(0, i) + l.slice(0, j) : (f, l) => l.slice(0, i) + f.slice(0, j);
});
const make = (pattern: Pattern, first: string, last: string, middle: string): string =>
  first === '' || (last === '' && pattern !== 'first') ? '' : makerOf(pattern)(first, last, middle);

/** The part before the @ that a pattern makes of a name as it is written plainly; '' when the name does not reach. */
export function localPart(pattern: Pattern, name: Named): string {
  const { first, last, middle } = nameWays(name);
  return make(pattern, first[0]?.text ?? '', last[0]?.text ?? '', middle);
}

/** Everything that the patterns make of a name, each with its chance when each pattern has its share; the likeliest first. */
export function localParts(name: Named, shares: readonly { pattern: Pattern; share: number }[]) {
  const { first, last, middle } = nameWays(name);
  const chances = new Map<string, number>();
  for (const { pattern, share } of shares)
    for (const one of first)
      for (const other of last) {
        const local = make(pattern, one.text, other.text, middle);
        if (local !== '') chances.set(local, (chances.get(local) ?? 0) + share * one.share * other.share);
      }
  return [...chances].map(([local, chance]) => ({ local, chance })).sort((a, b) => b.chance - a.chance);
}

/** Which pattern made this address of a name, figures behind it left out; the plain ways of writing it are looked at first. */
export function howMade(email: string, name: Named): Made {
  const ways = nameWays(name);
  const local = email.slice(0, email.indexOf('@'));
  const plainly: NameWays = { ...ways, first: ways.first.slice(0, 1), last: ways.last.slice(0, 1) };
  return (
    madeBy(local, plainly) ??
    madeBy(local, ways) ??
    madeBy(local.replace(/\d{1,2}$/, ''), plainly) ??
    cutOf(local, plainly) ??
    OTHER
  );
}

/** Fewer letters are those of a name by chance. */
const LEAST_CUT = 4;

/** How the parts of a name were cut to make this; undefined where they were not. */
function cutOf(local: string, { first, last }: NameWays): Cut | undefined {
  const [f, l] = [first[0]?.text ?? '', last[0]?.text ?? ''];
  if (local.length < LEAST_CUT) return undefined;
  for (const [order, one, other] of [
    ['fl', f, l],
    ['lf', l, f],
  ] as const)
    for (let at = 1; at < local.length && one.startsWith(local.slice(0, at)); at++)
      if (other.startsWith(local.slice(at))) return `cut ${order} ${at} ${local.length - at}`;
  return undefined;
}

const madeBy = (local: string, { first, last, middle }: NameWays): Pattern | undefined =>
  PATTERNS.find((pattern) =>
    first.some((one) => last.some((other) => make(pattern, one.text, other.text, middle) === local)),
  );
