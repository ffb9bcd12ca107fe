import { BINDING_WORDS, LEGAL_WORDS, ONE_SPELLING } from '../words/company-names';

/** A company's name as it is compared. */
export interface NameWords {
  /** Words in one spelling, without legal forms and without what binds. */
  words: readonly string[];
  /** The words as one. */
  joined: string;
  /** The same before words were brought into one spelling: a space more or less does not matter. */
  run: string;
  /** First letters of its words, those that bind left out. */
  initials: string;
}

/**
 * Takes a company's name apart: `The Brackenfold Mfg. Co., Ltd.` gives `brackenfold manufacturing`. A name of nothing but legal forms
 * keeps them.
 */
export function nameWords(name: string): NameWords {
  const plain = name
    .normalize('NFKD')
    .toLowerCase()
    .replace(/\p{M}+/gu, '')
    .replace(/ß/g, 'ss')
    .replace(/[’'`´]/g, '')
    .replace(/&|\+/g, ' and ')
    // I.B.M. is one word, A3MLTD two.
    .replace(/(?<![\p{L}\p{N}])(?:\p{L}\.){2,}/gu, (letters) => ` ${letters.replaceAll('.', '')} `)
    .replace(/(?<=[\p{L}\p{N}]{3})(ltd|gmbh|limited)(?![\p{L}\p{N}])/gu, ' $1');
  const all = plain.split(/[^\p{L}\p{N}]+/u).filter(Boolean);
  let [from, to] = [0, all.length];
  while (to > from + 1 && (LEGAL_WORDS.has(all[to - 1]!) || (to < all.length && all[to - 1] === 'and'))) to--;
  while (from < to - 1 && (all[from] === 'the' || LEGAL_WORDS.has(all[from]!))) from++;
  const kept = all.slice(from, to);
  const said = kept.filter((word) => !BINDING_WORDS.has(word));
  const words = (said.length > 0 ? said : kept).map((word) => ONE_SPELLING.get(word) ?? singular(word));
  return { words, joined: words.join(''), run: kept.join(''), initials: words.map((word) => word[0]).join('') };
}

const singular = (word: string) => (word.length > 4 && /[^s]s$/.test(word) ? word.slice(0, -1) : word);
