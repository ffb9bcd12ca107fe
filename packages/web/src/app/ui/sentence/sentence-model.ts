import type { Observable } from 'rxjs';

/** One value in a sentence. `text`: as it is typed; `exact`: in quotation marks or not, null where there are none. */
export interface Token {
  label: string;
  text: string;
  exact: boolean | null;
}

/** A part of a sentence about one field: words, values, and what it takes away of what the parts before it leave. */
export interface Clause {
  field: string;
  /** What it is about, for who cannot see the sentence. */
  name: string;
  words: string;
  /** Words behind the values. */
  after: string;
  not: boolean;
  /** What its values are called when they are folded: '5 titles'. */
  many: string;
  tokens: Token[];
  /** Null while it is not known. */
  takes: number | null;
}

/** What a sentence can speak of. */
export interface SentenceField {
  key: string;
  label: string;
  kind: 'text' | 'choice' | 'number';
  values?: readonly string[];
  /** What can be typed for it, where that is not what its kind says. */
  hint?: string;
}

/** What is done to a sentence; `clause` and `token` are positions in it. */
export type SentenceChange =
  | { kind: 'type'; text: string }
  | { kind: 'add'; clause: number; text: string }
  | { kind: 'write'; clause: number; token: number; text: string }
  | { kind: 'exact' | 'turn' | 'remove'; clause: number; token: number };

/** Carries a change out; what is wrong with it in words, '' when it was done. */
export type Apply = (change: SentenceChange) => string;

/** How many there would be after a change; null where nobody can say. */
export type CountIf = (change: SentenceChange) => Observable<number | null>;

/** A value of the field that holds a value of the sentence, and how often it is there. */
export interface HeldValue {
  value: string;
  count: number;
}

/** The most common values that hold one of a sentence; none where nobody counts them. */
export type ValuesOf = (clause: number, token: number) => Observable<readonly HeldValue[]>;

/** What can be meant by what is typed behind a sentence. `goesOn`: more has to be typed. */
export interface Proposal {
  label: string;
  text: string;
  goesOn: boolean;
}

const MOST_WORDS = 4;

/**
 * What can be meant by what was typed so far.
 *
 * @param usual the field that words without one are about
 */
export function proposals(typed: string, fields: readonly SentenceField[], usual: string): Proposal[] {
  const not = /^\s*not\s+/i.exec(typed)?.[0] ?? '';
  const rest = typed.slice(not.length);
  const colon = rest.indexOf(':');
  if (colon >= 0) {
    const field = fields.find(({ key }) => key === rest.slice(0, colon).trim().toLowerCase());
    const from = Math.max(rest.lastIndexOf(',') + 1, rest.search(/\sor\s\S*$/i) + 4, colon + 1);
    const begun = rest.slice(from).trim().toLowerCase();
    return (field?.values ?? [])
      .filter((value) => value.toLowerCase().startsWith(begun) && value.toLowerCase() !== begun)
      .map((value) => ({ label: value, text: `${not}${rest.slice(0, from).trimEnd()} ${value}`, goesOn: false }));
  }
  const begun = rest.trim().toLowerCase();
  const named = fields
    .filter(({ key, label }) => key.startsWith(begun) || label.toLowerCase().includes(begun))
    .map(({ key, label }) => ({ label: `${label} …`, text: `${not}${key}: `, goesOn: true }));
  if (begun === '') return named;
  const about = fields
    .filter(({ kind }) => kind === 'text')
    .sort((a, b) => Number(b.key === usual) - Number(a.key === usual))
    .slice(0, MOST_WORDS)
    .map(({ key, label }) => ({
      label: `${label}: ${rest.trim()}`,
      text: `${not}${key}: ${rest.trim()}`,
      goesOn: false,
    }));
  return [...named, ...about];
}

/** What a clause takes of a sentence, in characters. */
const lengthOf = ({ words, after, tokens }: Clause) =>
  words.length + after.length + 3 + tokens.reduce((sum, { label }) => sum + label.length + 4, 0);

/** Which clauses have to be folded for a sentence to fit into so many characters: those with most values first, never one that is touched. */
export function folded(clauses: readonly Clause[], room: number, touched: ReadonlySet<number>): Set<number> {
  const out = new Set<number>();
  let length = clauses.reduce((sum, clause) => sum + lengthOf(clause), 0);
  const order = clauses
    .map((clause, i) => ({ clause, i }))
    .filter(({ clause: { tokens }, i }) => tokens.length > 2 && !touched.has(i))
    .sort((a, b) => b.clause.tokens.length - a.clause.tokens.length);
  for (const { clause, i } of order) {
    if (length <= room) break;
    out.add(i);
    length -= lengthOf(clause) - clause.words.length - 14;
  }
  return out;
}
