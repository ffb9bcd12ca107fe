import type { Person } from '../../model/person';
import { fold } from '../../text/fold';
import { formsOf } from '../../words/nicknames';
import { LOWER_PARTICLES, PARTICLES } from '../../words/person';

export type Named = Pick<Person, 'firstName' | 'middleName' | 'lastName'>;

/** One way to write a part of a name in an address, and how often it is the one, 0 to 1. */
export interface Way {
  text: string;
  share: number;
}

/** A name as addresses write it; the first way of each part is the plain one. */
export interface NameWays {
  first: Way[];
  last: Way[];
  /** First letter of the middle name, '' without one. */
  middle: string;
}

/** How often a part that can be written in several ways is written so. Common practice, no source; seen on names and addresses of Debian's packages. */
const OF_TWO_FIRST = { firstOnly: 0.75, joined: 0.15, hyphened: 0.1 };
const WITH_PARTICLES = { joined: 0.6, without: 0.25, hyphened: 0.15 };
const OF_TWO_LAST = { joined: 0.5, hyphened: 0.2, firstOnly: 0.12, lastOnly: 0.18 };
/** ö as oe, where a name has one. */
const AS_TWO_LETTERS = 0.4;
/** Bill where the list says William, all forms together. */
const OTHER_FORMS = 0.08;
const MOST_FORMS = 6;

/** The ways in which addresses write a name: `Jörg van den Berg` as jorg or joerg, vandenberg, berg or van-den-berg. */
export function nameWays({ firstName, middleName, lastName }: Named): NameWays {
  const firsts = wordsIn(firstName.replace(/\./g, ''));
  const lasts = wordsIn(lastName);
  return { first: firstWays(firsts), last: lastWays(lasts), middle: plain(middleName).slice(0, 1) };
}

function firstWays(words: readonly string[]): Way[] {
  const [one] = words;
  if (one === undefined) return [];
  const written = bothSpellings(
    words.length === 1
      ? [{ text: one, share: 1 }]
      : [
          { text: one, share: OF_TWO_FIRST.firstOnly },
          { text: words.join(''), share: OF_TWO_FIRST.joined },
          { text: words.join('-'), share: OF_TWO_FIRST.hyphened },
        ],
  );
  const own = plain(one);
  const forms =
    own.length < 2
      ? []
      : formsOf(own)
          .filter((form) => form !== own)
          .slice(0, MOST_FORMS);
  if (forms.length === 0) return written;
  return [
    ...written.map(({ text, share }) => ({ text, share: share * (1 - OTHER_FORMS) })),
    ...forms.map((text) => ({ text, share: OTHER_FORMS / forms.length })),
  ];
}

function lastWays(words: readonly string[]): Way[] {
  if (words.length === 0) return [];
  const joined = words.join('');
  if (words.length === 1) return bothSpellings([{ text: joined, share: 1 }]);
  const hyphened = words.join('-');
  const own = words.slice(words.findLastIndex((word) => isParticle(word)) + 1);
  if (own.length < words.length && own.length > 0)
    return bothSpellings([
      { text: joined, share: WITH_PARTICLES.joined },
      { text: own.join(''), share: WITH_PARTICLES.without },
      { text: hyphened, share: WITH_PARTICLES.hyphened },
    ]);
  return bothSpellings([
    { text: joined, share: OF_TWO_LAST.joined },
    { text: hyphened, share: OF_TWO_LAST.hyphened },
    { text: words.at(-1)!, share: OF_TWO_LAST.lastOnly },
    { text: words[0]!, share: OF_TWO_LAST.firstOnly },
  ]);
}

const isParticle = (word: string) => PARTICLES.has(plain(word)) || LOWER_PARTICLES.has(plain(word));

const wordsIn = (text: string): string[] =>
  text
    .split(/[\s-]+/)
    .map((word) => word.replace(/[’'`´]/g, ''))
    .filter((word) => plain(word) !== '');

/** Each with and without its two dots as a letter of its own. */
function bothSpellings(ways: readonly Way[]): Way[] {
  const once = new Map<string, number>();
  const add = (text: string, share: number) => once.set(text, (once.get(text) ?? 0) + share);
  for (const { text, share } of ways) {
    const [one, two] = [plain(text), plain(asTwoLetters(text))];
    add(one, one === two ? share : share * (1 - AS_TWO_LETTERS));
    if (one !== two) add(two, share * AS_TWO_LETTERS);
  }
  return [...once].map(([text, share]) => ({ text, share }));
}

const TWO: Record<string, string> = { ä: 'ae', ö: 'oe', ü: 'ue', ø: 'oe', å: 'aa', æ: 'ae' };
const asTwoLetters = (text: string) =>
  text
    .toLowerCase()
    .normalize('NFC')
    .replace(/[äöüøåæ]/g, (sign) => TWO[sign]!);

/** Letters and digits of an address; hyphens between words stay. */
const plain = (text: string): string =>
  text
    .split('-')
    .map((word) => fold(word).replace(/[^a-z0-9]/g, ''))
    .filter(Boolean)
    .join('-');
