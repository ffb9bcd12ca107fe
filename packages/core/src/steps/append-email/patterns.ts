import { fold } from '../../text/fold';

/** How a firm makes addresses of names, with how common each is. Common practice, no source. */
const MAKERS = {
  'first.last': [0.36, (f: string, l: string) => `${f}.${l}`],
  flast: [0.2, (f: string, l: string) => f[0]! + l],
  first: [0.16, (f: string) => f],
  'f.last': [0.07, (f: string, l: string) => `${f[0]!}.${l}`],
  firstlast: [0.06, (f: string, l: string) => f + l],
  firstl: [0.05, (f: string, l: string) => f + l[0]!],
  first_last: [0.03, (f: string, l: string) => `${f}_${l}`],
  last: [0.02, (_: string, l: string) => l],
  'last.first': [0.02, (f: string, l: string) => `${l}.${f}`],
  lastf: [0.02, (f: string, l: string) => l + f[0]!],
  'first-last': [0.01, (f: string, l: string) => `${f}-${l}`],
} as const satisfies Record<string, readonly [number, (first: string, last: string) => string]>;

export type Pattern = keyof typeof MAKERS;
export const PATTERNS = Object.keys(MAKERS) as Pattern[];

/** A pattern's share before anything was learned. */
export const usualShare = (pattern: Pattern): number => MAKERS[pattern][0];

/** The part before the @ that a pattern makes of a name; '' when the name does not reach. */
export function localPart(pattern: Pattern, firstName: string, lastName: string): string {
  const first = ascii(firstName.split(/[\s-]/)[0] ?? '');
  const last = ascii(lastName);
  if (first === '' || (last === '' && pattern !== 'first')) return '';
  return MAKERS[pattern][1](first, last);
}

/** Which pattern made this address; undefined when none of them did. */
export function patternOf(email: string, firstName: string, lastName: string): Pattern | undefined {
  const local = email.slice(0, email.indexOf('@'));
  return PATTERNS.find((pattern) => localPart(pattern, firstName, lastName) === local);
}

const ascii = (name: string) => fold(name).replace(/[^a-z0-9]/g, '');
