import type { ChangeCode } from '../model/change';
import type { NamePart } from '../model/word-lists';
import { otherScript } from './other-scripts';
import { capitalise, isAllCaps, isAllLower, plainText } from './symbols';
import { isFirstName } from '../words/first-names';
import { CREDENTIALS, HONORIFICS, JOINERS, LOWER_PARTICLES, MAC_NAMES, PARTICLES, SUFFIXES } from '../words/person';

export interface PersonName {
  honorific: string;
  firstName: string;
  middleName: string;
  lastName: string;
  suffix: string;
  nickname: string;
  why: ChangeCode[];
}

const bare = (word: string) => word.toLowerCase().replaceAll('.', '').replace(/,$/, '');

/** Words that are parts of names, in lower case and without dots. */
type NameWords = Record<NamePart['is'] | 'lower', ReadonlySet<string>>;

const SHIPPED: NameWords = {
  honorific: HONORIFICS,
  suffix: SUFFIXES,
  degree: CREDENTIALS,
  particle: PARTICLES,
  lower: LOWER_PARTICLES,
};

/** A word that means something of one's own means nothing else. */
function nameWords(own: readonly NamePart[]): NameWords {
  if (own.length === 0) return SHIPPED;
  const said = new Map(own.map(({ word, is }) => [bare(word), is]));
  const of = (is: NamePart['is']) =>
    new Set([
      ...[...SHIPPED[is]].filter((word) => !said.has(word)),
      ...own.flatMap((one) => (one.is === is ? [bare(one.word)] : [])),
    ]);
  const particles = own.flatMap(({ word, is }) => (is === 'particle' ? [bare(word)] : []));
  return {
    honorific: of('honorific'),
    suffix: of('suffix'),
    degree: of('degree'),
    particle: of('particle'),
    lower: new Set([...LOWER_PARTICLES, ...particles]),
  };
}

const isSuffix = (word: string, { suffix }: NameWords) => suffix.has(bare(word));
const isCredential = (word: string, { degree }: NameWords) => degree.has(bare(word)) || /^(\p{Lu}\.){2,}$/u.test(word);
const whole = (words: readonly string[]) => words.join(' ');
const isInitial = (word: string) => /^\p{L}\.?$/u.test(word);

/**
 * Takes a person's name apart: decoration, nicknames in brackets, honorifics, degrees and suffixes go, what is
 * left is first, middle and last, in ordinary capitals.
 *
 * `Last, First` is turned round; a particle (van, de, St.) starts the last name; one word alone is the first name.
 *
 * @example parseName('★ Dr. MAREN OAKHILL, PhD') // first 'Maren', last 'Oakhill', honorific 'Dr.'
 */
export const parseName = nameReader();

/** Reads names as `parseName` does, and parts of one's own before all that ship. */
export function nameReader(own: readonly NamePart[] = []): (input: string) => PersonName {
  const known = nameWords(own);
  return (input) => plainName(input, known) ?? takenApart(input, known);
}

const blankName = (): PersonName => ({
  honorific: '',
  firstName: '',
  middleName: '',
  lastName: '',
  suffix: '',
  nickname: '',
  why: [],
});

/** Most names are one or two words in ordinary capitals, with nothing to take apart. */
function plainName(input: string, { honorific, suffix, degree }: NameWords): PersonName | null {
  const found = /^([A-Z][a-z]*)(?: ([A-Z][a-z]+))?$/.exec(input);
  if (!found) return null;
  const [, firstName = '', lastName = ''] = found;
  const [first, last] = [firstName.toLowerCase(), lastName.toLowerCase()];
  const more = last !== '' && (honorific.has(first) || suffix.has(last) || degree.has(last));
  return more ? null : { ...blankName(), firstName, lastName };
}

function takenApart(input: string, known: NameWords): PersonName {
  const why = new Set<ChangeCode>();
  const out = blankName();
  let text = plainText(input);
  const cut = text.replace(/\s+[|–—]\s.*$|\s+-\s.*$/u, '');
  if (cut !== text || text !== input.trim().replace(/\s+/g, ' ')) why.add('symbols-removed');
  else if (text !== input) why.add('spaces');
  text = cut.replace(
    /["“”'‘(（[]([^"“”()[\]（）]{1,40})["“”'’)）\]](?=\s|,|$)/gu,
    (whole, inner: string, at: number) => {
      if (at > 0 && !/\s/.test(text[at - 1] ?? ' ')) return whole;
      out.nickname = inner.trim();
      why.add('nickname-removed');
      return ' ';
    },
  );

  let words = inOrder(text, out, why, known);
  const honorifics: string[] = [];
  while (
    words.length > 1 &&
    known.honorific.has(bare(words[0]!)) &&
    !(words.length === 2 && !words[0]!.endsWith('.') && isFirstName(bare(words[0]!)))
  ) {
    honorifics.push(words.shift()!);
  }
  out.honorific = honorifics.join(' ');
  words = withoutCredentials(words, out, why, known);

  const foreign = otherScript(words);
  if (foreign) {
    if (foreign.last !== '' && !whole(words).endsWith(foreign.last)) why.add('order-turned');
    return { ...out, firstName: foreign.first, middleName: foreign.middle, lastName: foreign.last, why: [...why] };
  }

  if (
    words.length >= 2 &&
    isAllCaps(words[0]!) &&
    words[0]!.length > 2 &&
    words.slice(1).every((word) => !isAllCaps(word))
  ) {
    words = [...words.slice(1), words[0]!];
    why.add('order-turned');
  }
  const said = whole(words);
  const flat = isAllCaps(said.replace(/\bM[a]?c(?=\p{Lu})/gu, 'MC')) || isAllLower(said);
  const cased = words.map((word, i) =>
    (flat && !isInitial(word)) || (word.length > 2 && isAllCaps(word)) || isAllLower(word)
      ? nameCase(word, i > 0, known.lower)
      : word,
  );
  if (whole(cased) !== said) why.add('capitals');

  const last = lastStart(cased, known);
  out.firstName = cased[0] ?? '';
  out.middleName = cased.slice(1, last).join(' ');
  out.lastName = cased.slice(last).join(' ');
  out.why = [...why];
  return out;
}

/** The words of a name, first name first; what follows a comma is a suffix, a degree or the first names. */
function inOrder(text: string, out: PersonName, why: Set<ChangeCode>, known: NameWords): string[] {
  const parts = text
    .split(',')
    .map((part) => part.trim())
    .filter(Boolean);
  const split = (part: string) => part.split(/\s+/).filter((word) => /[\p{L}\p{N}]/u.test(word));
  const names: string[][] = [];
  for (const [i, part] of parts.entries()) {
    const words = split(part);
    if (i > 0 && words.every((word) => isSuffix(word, known) || isCredential(word, known))) {
      for (const word of words) takeEnding(word, out, why, known);
    } else if (i === 0 || names.length < 2) {
      names.push(words);
    } else {
      why.add('credentials-removed');
    }
  }
  if (names.length < 2) return names[0] ?? [];
  why.add('order-turned');
  return [...withoutCredentials(names[1]!, out, why, known), ...withoutCredentials(names[0]!, out, why, known)];
}

function takeEnding(word: string, out: PersonName, why: Set<ChangeCode>, known: NameWords) {
  if (isSuffix(word, known)) out.suffix = [out.suffix, word].filter(Boolean).join(' ');
  else why.add('credentials-removed');
}

function withoutCredentials(words: string[], out: PersonName, why: Set<ChangeCode>, known: NameWords): string[] {
  const left = [...words];
  const mixed = words.filter((word) => !isAllCaps(word)).length >= 2;
  const ends: string[] = [];
  while (left.length > 1) {
    const word = left.at(-1)!;
    const unknown =
      mixed && left.length > 2 && word.length >= 3 && word.length <= 6 && isAllCaps(word) && !word.includes('-');
    const plain = isSuffix(word, known) || (isCredential(word, known) && (left.length > 2 || word.length > 2));
    if (!plain && !unknown) break;
    if (bare(word) === 'v' && left.length === 2) break;
    ends.unshift(left.pop()!);
  }
  for (const word of ends) takeEnding(word, out, why, known);
  return left;
}

/** Where the last name starts: at a particle, at the word before a joiner, or at the last word. */
function lastStart(words: string[], { particle }: NameWords): number {
  for (let i = 1; i < words.length - 1; i++) {
    if (JOINERS.has(words[i]!.toLowerCase()) && i > 1) return i - 1;
    if (particle.has(words[i]!.toLowerCase()) && !isInitial(words[i]!)) return i;
  }
  return Math.max(1, words.length - 1);
}

/** Ordinary capitals for one word of a name: Mc, O', hyphens, particles. @param inside true behind the first word */
export function nameCase(word: string, inside: boolean, stayLower = LOWER_PARTICLES): string {
  const lower = word.toLowerCase();
  if (inside && stayLower.has(lower)) return lower;
  if (SUFFIXES.has(lower) && /^i+v?$|^iv$/.test(lower)) return word.toUpperCase();
  return word
    .split(/([-'’.])/u)
    .map((part, i, parts) => {
      if (i % 2 === 1) return part;
      if (i > 0 && /['’]/.test(parts[i - 1]!) && part.length === 1) return part.toLowerCase();
      const plain = capitalise(part);
      if (/^Mc\p{Ll}{2,}/u.test(plain)) return 'Mc' + capitalise(plain.slice(2));
      if (MAC_NAMES.has(part.toLowerCase())) return 'Mac' + capitalise(part.slice(3));
      return plain;
    })
    .join('');
}
