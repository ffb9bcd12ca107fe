import type { SitePage } from '../../facts/website';
import { wordFinder } from '../../text/word-finder';
import type { CompanyOptions } from './options';

/** A sentence of a site that speaks for a yes or for a no. */
export interface Speaking {
  path: string;
  /** From 1. */
  line: number;
  text: string;
  speaks: 'for' | 'against';
  /** The word of the list that it holds. */
  word: string;
}

/** What turns a sentence round. English, German, French, Dutch, Spanish, Italian; common practice, no source. */
const DENIES =
  /(?<!\p{L})(?:not|no longer|never|neither|without|nor|instead of|\p{L}+n[’']t|nicht|kein\p{L}*|nie|ne \p{L}+ (?:pas|plus|jamais)|geen|niet|non|nunca|ya no)(?!\p{L})/iu;

/**
 * The sentences of a site that hold words for or against. A word for a yes in a sentence that denies speaks against it; one that
 * denies a word against says nothing.
 */
export function readingFor({ speaksFor, speaksAgainst }: Pick<CompanyOptions, 'speaksFor' | 'speaksAgainst'>) {
  const [isFor, isAgainst] = [wordFinder(speaksFor), wordFinder(speaksAgainst)];
  return (pages: readonly SitePage[]): Speaking[] =>
    pages.flatMap(({ path, lines }) =>
      lines.flatMap((text, i): Speaking[] => {
        const says = (speaks: Speaking['speaks'], word: string) => [{ path, line: i + 1, text, speaks, word }];
        const against = wordIn(isAgainst, text);
        const word = wordIn(isFor, text);
        if (against === '' && word === '') return [];
        if (DENIES.test(text)) return word === '' ? [] : says('against', word);
        // A sentence that holds both is one that was foreseen: "makes cheese vats".
        return against === '' ? says('for', word) : says('against', against);
      }),
    );
}

/** A star takes what ends a sentence, too. */
const wordIn = (find: (text: string) => string, text: string) => find(text).replace(/[\p{P}]+$/u, '');

/** How likely a yes is by the words alone, 0 to 1 (Laplace's rule of succession, halved); 0.5 where they are even. */
export function chanceByWords(speaking: readonly Speaking[]): number {
  const yes = speaking.filter(({ speaks }) => speaks === 'for').length;
  return (yes + 0.5) / (speaking.length + 1);
}
