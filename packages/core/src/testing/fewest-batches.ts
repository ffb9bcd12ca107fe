import type { Found } from '../model/search';

/**
 * The fewest batches there can be of people who differ only in team and level, found by trying all: each batch takes some
 * teams and some levels (those with none among them), and the batches part the people.
 */
export function fewestOf(
  rows: readonly Found[],
  teams: readonly string[],
  levels: readonly string[],
  cap: number,
): number {
  const cells = teams.flatMap((team) =>
    levels.map((level) => rows.filter((row) => row['team'] === team && row['level'] === level).length),
  );
  const filled = cells.reduce((mask, n, at) => (n > 0 ? mask | (1 << at) : mask), 0);
  const rectangles = new Set<number>();
  for (let t = 1; t < 1 << teams.length; t++)
    for (let l = 1; l < 1 << levels.length; l++) {
      const inside = cells.map((_, at) => (t >> Math.floor(at / levels.length)) & (l >> (at % levels.length)) & 1);
      if (inside.reduce((sum, is, at) => sum + is * cells[at]!, 0) <= cap)
        rectangles.add(inside.reduce((mask, is, at) => mask | (is << at), 0) & filled);
    }
  const known = new Map<number, number>([[0, 0]]);
  const best = (mask: number): number => {
    let least = known.get(mask);
    if (least !== undefined) return least;
    least = Infinity;
    const lowest = mask & -mask;
    for (const part of rectangles)
      if (part & lowest && (part & mask) === part) least = Math.min(least, 1 + best(mask & ~part));
    known.set(mask, least);
    return least;
  };
  return best(filled);
}
