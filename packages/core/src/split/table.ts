import { pack } from './pack';

/** Rows of a search that have one value, or a bundle of values, of a choice; by the values of another once they are counted. */
export interface TableRow {
  total: number;
  cells: readonly number[] | null;
}

/** Columns of a group; one column that is over the cap is cut by its rows again. */
export interface TablePart {
  columns: number[];
  rows: number[][] | null;
}

/** Rows of the table that go together, and how they are cut by columns; null: they are one batch. */
export interface TableGroup {
  rows: number[];
  parts: TablePart[] | null;
}

/** How a table is cut, and about how many batches that makes. */
export interface TablePlan {
  groups: TableGroup[];
  batches: number;
}

/** Rows of a table beyond this are too many to try all ways to group them. */
export const MOST_ROWS = 12;
/** What a cell over the cap is expected to take beyond the fewest batches. */
const OVER = 0.3;
/** Steps of each packing: there are thousands of them. */
const PACK_STEPS = 500;

/**
 * The fewest batches that a table can be cut into by grouping its rows and packing the columns of each group. All groupings are
 * tried. Of rows that are not counted by column it is known how many they are, and what all of them have together: they can
 * be grouped where they fit into one batch, or all at once.
 *
 * @param rows no more than MOST_ROWS
 * @param columns how many each column has in all rows
 */
export function cutTable(rows: readonly TableRow[], columns: readonly number[], cap: number): TablePlan {
  const all = (1 << rows.length) - 1;
  const unknown = rows.reduce((mask, { cells }, i) => (cells ? mask : mask | (1 << i)), 0);
  const lump = columns.map((sum, k) => sum - rows.reduce((known, { cells }) => known + (cells?.[k] ?? 0), 0));
  const groups = Array.from({ length: all + 1 }, (_, mask) => (mask === 0 ? null : grouped(mask)));

  function grouped(mask: number): { batches: number; parts: TablePart[] | null } | null {
    const members = rows.flatMap((_, i) => (mask & (1 << i) ? [i] : []));
    if (members.reduce((sum, i) => sum + rows[i]!.total, 0) <= cap) return { batches: 1, parts: null };
    const apart = members.filter((i) => rows[i]!.cells);
    const together = members.filter((i) => !rows[i]!.cells);
    if (together.length > 0 && (mask & unknown) !== unknown) return null;
    const cellsOf = (k: number) => [
      ...apart.map((i) => ({ rows: [i], count: rows[i]!.cells![k]! })),
      ...(together.length > 0 ? [{ rows: together, count: lump[k]! }] : []),
    ];
    const sums = columns.map((_, k) => cellsOf(k).reduce((sum, { count }) => sum + count, 0));
    const small = sums.flatMap((sum, k) => (sum > 0 && sum <= cap ? [k] : []));
    const parts: TablePart[] = packed(small, (k) => sums[k]!).map((bin) => ({ columns: bin, rows: null }));
    let batches = parts.length;
    for (const [k, sum] of sums.entries()) {
      if (sum <= cap) continue;
      const cells = cellsOf(k);
      const large = cells.filter(({ count }) => count > cap);
      const fit = cells.filter(({ count }) => count <= cap);
      const bins = packed(fit, ({ count }) => count).map((bin) => bin.flatMap((cell) => cell.rows));
      const out = [...bins, ...large.map((cell) => cell.rows)];
      parts.push({ columns: [k], rows: out.length > 1 ? out : null });
      // A cell over the cap is left to other fields, and hardly ever fills its batches.
      batches += bins.length + large.reduce((n, { count }) => n + Math.ceil(count / cap) + OVER, 0);
    }
    return { batches, parts };
  }

  function packed<T>(items: readonly T[], size: (item: T) => number): T[][] {
    const bins = pack(items.map(size), cap, PACK_STEPS);
    return bins.map((bin) => bin.map((i) => items[i]!));
  }

  const best = new Float64Array(all + 1);
  const taken = new Int32Array(all + 1);
  for (let mask = 1; mask <= all; mask++) {
    best[mask] = Infinity;
    const lowest = mask & -mask;
    for (let part = mask; part > 0; part = (part - 1) & mask) {
      const group = part & lowest ? groups[part] : null;
      if (!group || best[mask & ~part] === Infinity) continue;
      const batches = group.batches + best[mask & ~part]!;
      if (batches < best[mask]!) {
        best[mask] = batches;
        taken[mask] = part;
      }
    }
  }
  const out: TableGroup[] = [];
  for (let mask = all; mask > 0; mask &= ~taken[mask]!) {
    const members = rows.flatMap((_, i) => (taken[mask]! & (1 << i) ? [i] : []));
    out.push({ rows: members, parts: groups[taken[mask]!]!.parts });
  }
  return { groups: out, batches: best[all]! };
}

/** The same table seen from its columns, once all of it is counted. */
export const turned = (rows: readonly TableRow[], columns: readonly number[]): [TableRow[], number[]] => [
  columns.map((total, k) => ({ total, cells: rows.map(({ cells }) => cells![k]!) })),
  rows.map(({ total }) => total),
];
