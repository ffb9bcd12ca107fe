import { mostCommon } from '../text/most-common';
import { targetOfName } from './header-names';
import { cellKind, isData } from './value-kinds';

/** Where the header is: `row` is its index in the sample, -1 when there is none and the first row is data. */
export interface Header {
  row: number;
  names: string[];
}

/**
 * Finds the header row of a table and skips title lines above it.
 *
 * @param sample the first rows, as cells
 * @returns for a table without a header the names `Column 1`, `Column 2`, ...
 */
export function findHeader(sample: string[][]): Header {
  const width = mostCommon(sample.map((row) => row.length)) ?? 0;
  let best = { row: -1, score: 0.5 };
  const candidates = Math.min(sample.length, 20);
  for (let i = 0; i < candidates; i++) {
    const cells = sample[i]!.map((cell) => cell.trim());
    const filled = cells.filter(Boolean);
    if (filled.length < Math.max(1, width * 0.5)) continue;
    const known = filled.filter((cell) => targetOfName(cell) !== undefined).length / filled.length;
    const below = kindsBelow(sample, i, cells.length);
    const contrast = cells.filter(
      (cell, column) => cell !== '' && below[column] && cellKind(cell) !== below[column],
    ).length;
    // `Sepal.Length` looks like a site, and is none above a column of numbers.
    const isValue = (cell: string, column: number) =>
      isData(cell) && !(cellKind(cell) === 'link' && below[column] !== 'link' && below[column] !== null);
    const data = cells.filter((cell, column) => cell !== '' && isValue(cell, column)).length / filled.length;
    const unique = new Set(filled.map((cell) => cell.toLowerCase())).size / filled.length;
    const score =
      known * 2 +
      (contrast / filled.length) * 1.5 +
      unique * 0.4 -
      data * 3 -
      i * 0.03 -
      (width > 1 && filled.length === 1 ? 1 : 0);
    if (score > best.score) best = { row: i, score };
    if (data > 0.2) break;
  }
  const names = best.row < 0 ? [] : sample[best.row]!;
  const columns = Math.max(width, names.length);
  return { row: best.row, names: uniqueNames(Array.from({ length: columns }, (_, i) => names[i]?.trim() ?? '')) };
}

const LOOKED_BELOW = 30;

/** For each column what most of the cells below a row are; null for words, or where there is nothing to tell by. */
function kindsBelow(sample: readonly string[][], row: number, width: number): ReturnType<typeof cellKind>[] {
  const rows = sample.slice(row + 1, row + 1 + LOOKED_BELOW);
  return Array.from({ length: width }, (_, column) => {
    const kinds = rows
      .map((cells) => cells[column]?.trim() ?? '')
      .filter(Boolean)
      .map(cellKind);
    const first = kinds[0] ?? null;
    const alike = kinds.filter((kind) => kind === first).length;
    return kinds.length >= 2 && alike >= kinds.length * 0.8 ? first : null;
  });
}

/** Names for columns: blanks are numbered, repeated ones counted. */
export function uniqueNames(names: string[]): string[] {
  const seen = new Map<string, number>();
  return names.map((name, i) => {
    const base = name || `Column ${i + 1}`;
    const n = (seen.get(base) ?? 0) + 1;
    seen.set(base, n);
    return n === 1 ? base : `${base} ${n}`;
  });
}
