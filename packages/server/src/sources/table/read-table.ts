import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import {
  delimitedReader,
  findDelimiter,
  findHeader,
  hasGroupsAbove,
  looksBinary,
  mostCommon,
  type RawRow,
} from '@sieve/core';
import type { Format, SaidFormat } from '@sieve/contract';
import { AppError } from '../../errors';
import { encodingOf, head } from '../documents/head';
import { cardRows } from '../documents/cards';
import { objectRows } from '../documents/objects';
import { pageRows } from '../documents/page';
import { workbookRows } from '../workbook/read-workbook';

export const MOST_COLUMNS = 500;

const isZip = (bytes: Buffer) => bytes.subarray(0, 4).toString('latin1') === 'PK\x03\x04';
const isOldWorkbook = (bytes: Buffer) => bytes.subarray(0, 4).toString('hex') === 'd0cf11e0';

/** A table that is being read: how, and its rows that are not blank, header and title lines included, some at a time. */
export interface OpenTable {
  format: Format;
  sheets: string[];
  rows: AsyncGenerator<RawRow[]>;
}

/**
 * Opens a file as what the person said and, for the rest, as what its bytes say; the name's ending counts for nothing. It is read
 * once. Throws AppError for a file that is no table.
 */
export async function openTable(file: string, name: string, said: SaidFormat): Promise<OpenTable> {
  const format = await kindOf(file, name, said);
  let sheets: string[] = [];
  const rows = tableRows(file, format, name, (names) => (sheets = names));
  const first: RawRow[] = [];
  while (first.length < HEADER_SAMPLE) {
    const next = await rows.next();
    if (next.done === true) break;
    first.push(...next.value);
  }
  if (first.length === 0) throw new AppError('empty-file', { name });
  const sample = first.slice(0, HEADER_SAMPLE).map(({ cells }) => cells);
  const width = mostCommon(sample.map((cells) => cells.length)) ?? 0;
  if (width > MOST_COLUMNS) {
    await rows.return(undefined);
    const columns = Math.max(...sample.map((cells) => cells.length));
    throw new AppError('too-many-columns', { name, columns, limit: MOST_COLUMNS });
  }
  return { format: withHeader(format, said, sample), sheets, rows: behind(first, rows) };
}

const HEADER_SAMPLE = 200;

/** Where the header is, as was said or as it is found. */
function withHeader(format: Format, said: SaidFormat, sample: string[][]): Format {
  if (format.kind !== 'table' && format.kind !== 'workbook') return { ...format, headerRow: 0 };
  const headerRow = said.headerRow ?? findHeader(sample).row;
  const above = sample[headerRow - 1];
  const joined = above !== undefined && (said.joined ?? hasGroupsAbove(above, sample[headerRow] ?? []));
  return { ...format, headerRow, ...(joined && { joined }) };
}

async function* behind(first: RawRow[], rest: AsyncGenerator<RawRow[]>): AsyncGenerator<RawRow[]> {
  yield first;
  yield* rest;
}

async function kindOf(file: string, name: string, said: SaidFormat): Promise<Format> {
  const { size } = await stat(file);
  if (size === 0) throw new AppError('empty-file', { name });
  const bytes = await head(file);
  if (isOldWorkbook(bytes)) throw new AppError('old-workbook', { name });
  if (isZip(bytes)) return { kind: 'workbook', sheet: said.sheet ?? '', headerRow: 0 };
  const encoding = said.encoding ?? encodingOf(bytes);
  const decoder = decoderOf(encoding);
  const kind = said.kind ?? kindOfText(decoder.decode(bytes.subarray(0, KIND_BYTES)));
  if (kind === 'page') return { kind, encoding, sheet: said.sheet ?? '', headerRow: 0 };
  if (kind === 'cards') return { kind, encoding, headerRow: 0 };
  if (kind === 'objects') return { kind, encoding, lines: said.lines ?? isLines(decoder.decode(bytes)), headerRow: 0 };
  if (!said.encoding && looksBinary(bytes)) throw new AppError('binary-file', { name });
  const delimiter = said.delimiter ?? findDelimiter(decoder.decode(bytes.subarray(0, 64 * 1024)));
  return { kind: 'table', encoding, delimiter, headerRow: 0 };
}

const KIND_BYTES = 4096;
const PAGE =
  /^\s*(<!--(?:(?!-->)[^])*-->\s*)*(<\?xml[^>]*\?>\s*)?<(!doctype\s+html|html|head|body|main|section|article|table|div|ul|ol|dl)\b/i;

/** What a text is by how it begins. */
function kindOfText(begins: string): 'page' | 'objects' | 'cards' | 'table' {
  const text = begins.replace(/^\uFEFF/, '');
  if (/^\s*BEGIN:VCARD\s*$/im.test(text.slice(0, 200))) return 'cards';
  if (PAGE.test(text)) return 'page';
  return /^\s*(\{\s*("|\})|\[\s*(\{|\]))/.test(text) ? 'objects' : 'table';
}

/** JSON lines: the first line is an object by itself, and another follows. */
function isLines(text: string): boolean {
  const [first = '', second = ''] = text.split(/\r?\n/, 2);
  if (!second.trimStart().startsWith('{')) return false;
  try {
    return typeof JSON.parse(first) === 'object';
  } catch {
    return false;
  }
}

/** Throws `unknown-encoding` for a label that the WHATWG Encoding Standard does not have. */
export function decoderOf(encoding: string): InstanceType<typeof TextDecoder> {
  try {
    return new TextDecoder(encoding);
  } catch {
    throw new AppError('unknown-encoding', { encoding });
  }
}

/** The rows of a table that are not blank, some at a time, header and title lines included. */
export async function* tableRows(
  file: string,
  format: Format,
  name: string,
  onSheets?: (names: string[]) => void,
): AsyncGenerator<RawRow[]> {
  const rows = rowsOf(file, format, name, onSheets);
  for await (const some of rows)
    yield some.filter(({ cells, problem }) => problem !== undefined || cells.some((cell) => cell.trim() !== ''));
}

function rowsOf(file: string, format: Format, name: string, onSheets?: (names: string[]) => void) {
  switch (format.kind) {
    case 'table':
      return delimitedRows(file, format);
    case 'workbook':
      return workbookRows(file, name, format.sheet, onSheets);
    case 'page':
      return pageRows(file, name, format, onSheets);
    case 'objects':
      return objectRows(file, name, format);
    case 'cards':
      return cardRows(file, format);
  }
}

async function* delimitedRows(file: string, format: Extract<Format, { kind: 'table' }>): AsyncGenerator<RawRow[]> {
  const decoder = decoderOf(format.encoding);
  const reader = delimitedReader(format.delimiter);
  for await (const chunk of createReadStream(file, { highWaterMark: 256 * 1024 })) {
    yield reader.push(decoder.decode(chunk as Buffer, { stream: true }));
  }
  yield reader.push(decoder.decode());
  yield reader.end();
}
