/**
 * Finds what a word means in lists of words, where `word*` is how one begins and `*word` how one ends: whole words first, then
 * the longest beginning, then the longest ending.
 *
 * @param lists words between blanks, and what all of a list mean
 */
export function wordIndex<T>(lists: readonly (readonly [words: string, meaning: T])[]): (word: string) => T | undefined {
  const [whole, beginnings, endings] = [new Map<string, T>(), new Map<string, T>(), new Map<string, T>()];
  for (const [words, meaning] of lists)
    for (const word of words.split(/\s+/).filter(Boolean)) {
      const [index, text] = word.endsWith('*')
        ? [beginnings, word.slice(0, -1)]
        : word.startsWith('*')
          ? [endings, word.slice(1)]
          : [whole, word];
      if (!index.has(text)) index.set(text, meaning);
    }
  return (word) => {
    const exact = whole.get(word);
    if (exact !== undefined) return exact;
    for (let length = word.length; length > 1; length--) {
      const meaning = beginnings.get(word.slice(0, length));
      if (meaning !== undefined) return meaning;
    }
    for (let from = 0; from < word.length - 2; from++) {
      const meaning = endings.get(word.slice(from));
      if (meaning !== undefined) return meaning;
    }
    return undefined;
  };
}
