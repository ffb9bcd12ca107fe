/** A number from 0 to 1 that is always the same for the same words (FNV-1a, then mixed). */
export function chance(...words: (string | number)[]): number {
  let hash = 0x811c9dc5;
  const text = words.join('\u0001');
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  hash ^= hash >>> 15;
  hash = Math.imul(hash, 0x2c1b3c6d);
  hash ^= hash >>> 12;
  hash = Math.imul(hash, 0x297a2d39);
  hash ^= hash >>> 15;
  return (hash >>> 0) / 4294967296;
}

export const pick = <T>(list: readonly T[], ...words: (string | number)[]): T =>
  list[Math.floor(chance(...words) * list.length)]!;

/** Picks by weight. */
export function weighted<T extends string>(weights: Record<T, number>, ...words: (string | number)[]): T {
  const entries = Object.entries(weights) as [T, number][];
  let left = chance(...words) * entries.reduce((sum, [, weight]) => sum + weight, 0);
  for (const [value, weight] of entries) if ((left -= weight) < 0) return value;
  return entries[0]![0];
}
