/** Characters that decorate text and mean nothing in it: emoji, pictographs, stars, arrows, flags, joiners, controls. */
const SYMBOLS =
  /(?:[\p{Cc}\p{Extended_Pictographic}\p{Regional_Indicator}\p{Emoji_Modifier}\u{2190}-\u{21ff}\u{2300}-\u{27bf}\u{2b00}-\u{2bff}\u{200b}\u{200c}\u{2060}\u{feff}®™©•·★☆~*_#^`<>]|\u{200d}|\u{fe0f})+/gu;
const FANCY_LETTERS = /[\u{1d400}-\u{1d7ff}\u{ff01}-\u{ff5e}\u{24b6}-\u{24e9}]/u;
const PLAIN = /^[\x20-\x7e]*$/;
const PLAIN_SYMBOLS = /[~*_#^`<>]/;

/** Removes what decorates, writes stylised letters plainly and folds spaces. */
export function plainText(input: string): string {
  if (PLAIN.test(input) && !PLAIN_SYMBOLS.test(input))
    return input.includes('  ') ? input.replace(/ +/g, ' ').trim() : input.trim();
  const letters = FANCY_LETTERS.test(input) ? input.normalize('NFKC') : input.normalize('NFC');
  return letters
    .replace(SYMBOLS, ' ')
    .replace(/[\s\u00a0]+/g, ' ')
    .trim();
}

export const isAllCaps = (s: string): boolean => /\p{Lu}/u.test(s) && !/\p{Ll}/u.test(s);
export const isAllLower = (s: string): boolean => /\p{Ll}/u.test(s) && !/\p{Lu}/u.test(s);

export const capitalise = (word: string): string => {
  const at = word.search(/\p{L}/u);
  return at < 0 ? word : word.slice(0, at) + word[at]!.toUpperCase() + word.slice(at + 1).toLowerCase();
};
