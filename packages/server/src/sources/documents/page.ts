import { fieldsOf, findRecordSets, readPage, type Page, type RawRow } from '@sieve/core';
import { AppError } from '../../errors';
import { encodingOf, head } from './head';
import { readText } from './read-text';

/** Characters that a page may have at most: no page that is written for people is longer. */
const LONGEST_PAGE = 64 * 1024 * 1024;
const NAMED = 4;

/** Makes the links of a page whole, by its base and its address, as far as these are known. */
export function resolver({ base }: Pick<Page, 'base'>, address: string): (link: string) => string {
  const from = wholeLink(base || address, address);
  return (link) => (link === '' ? '' : wholeLink(link, from));
}

const wholeLink = (link: string, from: string): string =>
  URL.canParse(link, from || undefined) ? new URL(link, from || undefined).href : link;

/** A saved page as text, by the encoding that its bytes or it itself says. */
export async function readPageText(file: string): Promise<string> {
  return readText(file, encodingOf(await head(file)), LONGEST_PAGE);
}

/**
 * The records of one set of a saved page, under the names of their fields; `line` counts the records from 2 on, the names being the
 * first row.
 *
 * @param sheet which set, by its name; empty: the best
 * @param onSheets the names of all sets, best first
 */
export async function* pageRows(
  file: string,
  name: string,
  { encoding, sheet }: { encoding: string; sheet: string },
  onSheets: (names: string[]) => void = () => undefined,
): AsyncGenerator<RawRow[]> {
  const page = readPage(await readText(file, encoding, LONGEST_PAGE));
  const sets = findRecordSets(page);
  if (sets.length === 0) throw new AppError('no-records', { name });
  const found = sets.map((set, i) => {
    const fields = fieldsOf(set, resolver(page, page.address));
    const names = fields.slice(0, NAMED).map((field) => field.name);
    return { fields, count: set.records.length, name: `${i + 1}. ${set.records.length} records: ${names.join(', ')}` };
  });
  onSheets(found.map((set) => set.name));
  const wanted = sheet === '' ? found[0] : found.find((set) => set.name === sheet);
  if (!wanted) throw new AppError('no-records', { name });
  const { fields, count } = wanted;
  yield [
    { line: 1, cells: fields.map((field) => field.name) },
    ...Array.from({ length: count }, (_, i) => ({ line: i + 2, cells: fields.map(({ values }) => values[i] ?? '') })),
  ];
}
