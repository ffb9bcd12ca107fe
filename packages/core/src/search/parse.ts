import {
  SUBJECTS,
  searchField,
  type Condition,
  type Range,
  type Search,
  type SearchField,
  type Subject,
  type Term,
} from '../model/search';

export type SearchErrorCode =
  | 'no-such-field'
  | 'colon-missing'
  | 'value-missing'
  | 'quote-not-closed'
  | 'not-a-number'
  | 'range-turned'
  | 'not-a-value'
  | 'too-many';

/** What cannot be read, and where: `at` and `length` count characters of the text. */
export interface SearchError {
  code: SearchErrorCode;
  at: number;
  length: number;
  input: string;
  /** The values there are, where it is not one of them. */
  oneOf?: readonly string[];
}

/** Names in an OR list; directories take no more. */
export const MOST_TERMS = 500;

/**
 * Reads a search from one line of text, or says where it cannot be read.
 *
 * search := [ people | companies | postings ] [ where ] [ condition { ; condition } ]
 * condition := [ not ] field : value { (or | ,) value }
 * value := "exact phrase" | words in any order | 7 | 1..7 | 8.. | ..-20
 *
 * @param about what is searched when the text does not begin with it
 */
export function parseSearch(
  text: string,
  about: Subject = 'people',
): { search: Search; error: null } | { search: null; error: SearchError } {
  let at = 0;
  let subject = about;
  const fail = (code: SearchErrorCode, from: number, to = at, oneOf?: readonly string[]): never => {
    const length = Math.max(1, to - from);
    throw new Unreadable({ code, at: from, length, input: text.slice(from, to), ...(oneOf && { oneOf }) });
  };
  const skip = () => {
    while (/\s/.test(text[at] ?? '')) at++;
  };
  const word = (known: readonly string[]): string | undefined => {
    skip();
    const found = /^[\p{L}]+/u.exec(text.slice(at))?.[0];
    if (!found || !known.includes(found.toLowerCase())) return undefined;
    at += found.length;
    return found.toLowerCase();
  };

  function field(): SearchField {
    skip();
    const from = at;
    while (at < text.length && !/[:;]/.test(text[at]!)) at++;
    const name = text.slice(from, at).trim();
    if (text[at] !== ':') fail('colon-missing', from, Math.max(from + name.length, from + 1));
    const known = searchField(subject, name.toLowerCase());
    if (!known) fail('no-such-field', from, from + name.length);
    at++;
    return known!;
  }

  /** The raw text of one value, and whether it stood in quotation marks. */
  function value(): { from: number; text: string; exact: boolean } {
    skip();
    const from = at;
    if (text[at] === '"') {
      let out = '';
      for (at++; ; at++) {
        if (at >= text.length) fail('quote-not-closed', from);
        if (text[at] !== '"') out += text[at];
        else if (text[at + 1] === '"') out += text[at++]!;
        else break;
      }
      at++;
      return { from, text: out.trim().replace(/\s+/g, ' '), exact: true };
    }
    while (at < text.length && !/[;,"]/.test(text[at]!) && !/^\sor\s/i.test(text.slice(at, at + 4))) at++;
    return { from, text: text.slice(from, at).trim().replace(/\s+/g, ' '), exact: false };
  }

  function values(of: SearchField): { terms: Term[]; ranges: Range[] } {
    const terms: Term[] = [];
    const ranges: Range[] = [];
    const start = at;
    for (;;) {
      const given = value();
      if (given.text === '') fail('value-missing', given.from, given.from + 1);
      if (of.kind === 'number') ranges.push(readRange(given.text, given.from));
      else if (of.kind === 'choice') {
        const known = of.values?.find((one) => one.toLowerCase() === given.text.toLowerCase());
        if (of.values && !known) fail('not-a-value', given.from, given.from + given.text.length, of.values);
        terms.push({ text: known ?? given.text, exact: true });
      } else terms.push({ text: given.text, exact: given.exact });
      if (terms.length > MOST_TERMS) fail('too-many', start);
      skip();
      if (text[at] === ',') at++;
      else if (!word(['or'])) break;
    }
    return { terms, ranges };
  }

  function readRange(raw: string, from: number): Range {
    const plain = raw.replace(/\s/g, '').replaceAll('−', '-');
    const found = /^(-?\d{1,9})?\.\.(-?\d{1,9})?$/.exec(plain);
    const single = /^-?\d{1,9}$/.test(plain) ? Number(plain) : null;
    if (!found && single === null) fail('not-a-number', from, from + raw.length);
    if (single !== null) return { from: single, to: single };
    const [low, high] = [found![1], found![2]].map((n) => (n === undefined ? null : Number(n))) as [
      number | null,
      number | null,
    ];
    if (low !== null && high !== null && low > high) fail('range-turned', from, from + raw.length);
    return { from: low, to: high };
  }

  try {
    subject = (word(SUBJECTS) as Subject | undefined) ?? about;
    word(['where']);
    const conditions: Condition[] = [];
    for (skip(); at < text.length; skip()) {
      if (text[at] === ';') {
        at++;
        continue;
      }
      const not = /^not\s/i.test(text.slice(at, at + 4)) && word(['not']) !== undefined;
      const known = field();
      const { terms, ranges } = values(known);
      conditions.push({ field: known.key, not, ...(known.kind === 'number' ? { ranges } : { terms }) });
      skip();
      if (at < text.length && text[at] !== ';') fail('colon-missing', at, text.length);
    }
    return { search: { about: subject, conditions }, error: null };
  } catch (thrown) {
    if (thrown instanceof Unreadable) return { search: null, error: thrown.error };
    throw thrown;
  }
}

class Unreadable extends Error {
  constructor(readonly error: SearchError) {
    super(error.code);
  }
}
