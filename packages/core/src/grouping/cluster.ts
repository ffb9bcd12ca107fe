import { groupedBy } from './grouped-by';

/** A pair of record indexes and how likely they are one person. */
export interface Link {
  a: number;
  b: number;
  chance: number;
  /** What was seen of it, as `patternOf` writes it. */
  pattern: number;
}

/** The most likely first; those that are as likely stay as they came. */
export const mostLikelyFirst = <L extends { chance: number }>(links: readonly L[]): L[] =>
  [...groupedBy(links, ({ chance }) => chance)].sort(([p], [q]) => q - p).flatMap(([, group]) => group);

/**
 * Puts records together: what a person called the same first, then pairs from the most likely down. A pair is passed
 * over when a person said that somebody in the one group is not somebody in the other, or when the two groups
 * hold more pairs that speak against a merge than for it.
 *
 * @param likely pairs at or over the merge line, the most likely first
 * @param different groups of records of which no two are one person
 * @param conflict true when two records cannot be one person by what is known of them
 * @returns for each record the lowest index in its group
 */
export function cluster(
  size: number,
  likely: readonly Pick<Link, 'a' | 'b'>[],
  same: readonly (readonly [number, number])[],
  different: readonly (readonly number[])[],
  conflict: (a: number, b: number) => boolean,
): Int32Array {
  const parent = Int32Array.from({ length: size }, (_, i) => i);
  const members = new Map<number, number[]>();
  /** For each group the numbers of those of `different` that it has a record of. */
  const apart = new Map<number, Set<number>>();
  const find = (i: number): number => {
    while (parent[i] !== i) i = parent[i] = parent[parent[i]!]!;
    return i;
  };
  const group = (root: number) => members.get(root) ?? [root];
  const keep = (root: number, numbers: Iterable<number>) => {
    const known = apart.get(root) ?? new Set();
    for (const number of numbers) known.add(number);
    apart.set(root, known);
  };
  const mayNotMeet = (x: number, y: number) => {
    const [one, two] = [apart.get(x), apart.get(y)];
    if (!one || !two) return false;
    for (const number of one) if (two.has(number)) return true;
    return false;
  };
  const unite = (x: number, y: number) => {
    const [root, other] = x < y ? [x, y] : [y, x];
    members.set(root, [...group(root), ...group(other)]);
    members.delete(other);
    parent[other] = root;
    const numbers = apart.get(other);
    if (numbers) keep(root, numbers);
    apart.delete(other);
  };
  for (const [a, b] of same) if (find(a) !== find(b)) unite(find(a), find(b));
  for (const [number, records] of different.entries()) for (const record of records) keep(find(record), [number]);
  for (const { a, b } of likely) {
    const x = find(a);
    const y = find(b);
    if (x === y || mayNotMeet(x, y)) continue;
    const one = group(x);
    const two = group(y);
    if (one.length * two.length > 1 && one.length * two.length <= 400) {
      let against = 0;
      for (const i of one) for (const j of two) if (conflict(i, j)) against++;
      if (against * 2 >= one.length * two.length) continue;
    }
    unite(x, y);
  }
  return Int32Array.from({ length: size }, (_, i) => find(i));
}
