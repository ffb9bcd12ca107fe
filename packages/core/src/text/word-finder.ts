const escape = (s: string) => s.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/** One test for many words or phrases: whole words, any case; a star is any letters. The result is the word found, '' for none. */
export function wordFinder(words: readonly string[]): (text: string) => string {
  if (words.length === 0) return () => '';
  const any = new RegExp(
    `(?<![\\p{L}\\p{N}])(${words.map((word) => escape(word.trim()).replace(/\s+/g, '\\s+').replace(/\\\*/g, '[^\\s,;]*')).join('|')})(?![\\p{L}\\p{N}])`,
    'iu',
  );
  return (text) => any.exec(text)?.[1] ?? '';
}
