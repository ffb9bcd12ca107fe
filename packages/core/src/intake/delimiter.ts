import { mostCommon } from '../text/most-common';
import { delimitedReader } from './delimited';

export const DELIMITERS = [',', ';', '\t', '|'] as const;

/**
 * The delimiter under which the sample's rows agree best on a width of more than one cell.
 *
 * @param sample the first part of the text, some thousand characters
 * @returns ',' when there is nothing to tell by
 */
export function findDelimiter(sample: string): string {
  let best: { delimiter: string; score: number } = { delimiter: ',', score: 0 };
  for (const delimiter of DELIMITERS) {
    const widths = delimitedReader(delimiter)
      .push(sample.endsWith('\n') ? sample : sample + '\n')
      .slice(0, 200)
      .filter((row) => row.cells.some((cell) => cell.trim() !== ''))
      .map((row) => row.cells.length);
    const width = mostCommon(widths.filter((w) => w > 1));
    if (width === undefined) continue;
    const agree = widths.filter((w) => w === width).length / widths.length;
    const score = agree * Math.min(2, 1 + Math.log10(width));
    if (score > best.score) best = { delimiter, score };
  }
  return best.delimiter;
}
