import * as z from 'zod';

/** When a harvest stops by itself; the last page always ends it. */
export const stopRules = z.object({
  pages: z.int().min(1).max(10_000).default(40),
  rows: z.int().min(1).max(1_000_000).default(1000),
  /** A column, by its place among the fields, and what it turns; null: none is watched. */
  column: z
    .object({ field: z.int().min(0).max(500), turns: z.enum(['blank or zero', 'blank', 'zero']) })
    .nullable()
    .default(null),
  /** When a page brings nothing that the ones before had not. */
  nothingNew: z.boolean().default(true),
});
export type StopRules = z.output<typeof stopRules>;
export type ColumnRule = NonNullable<StopRules['column']>;

export const HARVEST_ENDS = ['last-page', 'pages', 'rows', 'column', 'nothing-new'] as const;
export type HarvestEnd = (typeof HARVEST_ENDS)[number];

/** The first number in a cell, 1,204 and 1.204 being one; null without any. */
export function numberIn(cell: string): number | null {
  const found = /-?\d{1,3}(?:[,.\s]\d{3})+(?!\d)|-?\d+(?:[.,]\d+)?/.exec(cell)?.[0];
  if (found === undefined) return null;
  return Number(/[,.\s]\d{3}(?!\d)/.test(found) ? found.replace(/[,.\s]/g, '') : found.replace(',', '.'));
}

const isTurned = (cell: string, turns: ColumnRule['turns']): boolean =>
  (turns !== 'zero' && cell.trim() === '') || (turns !== 'blank' && numberIn(cell) === 0);

/**
 * How many rows of a page come before the watched column turns: what is blank or zero up to the end of the page has turned; a gap in the
 * middle has not.
 */
export function rowsBeforeTurn(cells: readonly string[], turns: ColumnRule['turns']): number {
  let kept = cells.length;
  while (kept > 0 && isTurned(cells[kept - 1]!, turns)) kept--;
  return kept;
}

/** The lowest number of a column on a page; null when none of its cells has any. */
export function lowestOf(cells: readonly string[]): number | null {
  let lowest: number | null = null;
  for (const cell of cells) {
    const number = numberIn(cell);
    if (number !== null && (lowest === null || number < lowest)) lowest = number;
  }
  return lowest;
}

/** Pages that a line through the last ones is drawn from. */
const TREND = 8;

/**
 * Where a column that falls from page to page will be at zero: by a straight line of least squares through its last pages.
 *
 * @param lowest of each page from the first on
 * @returns the page, from 1; null when it does not fall
 */
export function zeroNear(lowest: readonly (number | null)[]): number | null {
  const points = lowest.flatMap((y, i) => (y === null ? [] : [{ x: i + 1, y }])).slice(-TREND);
  if (points.length < 2) return null;
  const mean = (of: (point: { x: number; y: number }) => number) =>
    points.reduce((sum, point) => sum + of(point), 0) / points.length;
  const [mx, my] = [mean(({ x }) => x), mean(({ y }) => y)];
  const slope = mean(({ x, y }) => (x - mx) * (y - my)) / mean(({ x }) => (x - mx) ** 2);
  if (!(slope < 0)) return null;
  return Math.max(points.at(-1)!.x, Math.ceil(mx - my / slope));
}
