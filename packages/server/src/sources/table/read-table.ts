import { createReadStream } from 'node:fs';
import { open, stat } from 'node:fs/promises';
import {
  delimitedReader,
  ENCODING_SAMPLE_BYTES,
  findDelimiter,
  findEncoding,
  findHeader,
  looksBinary,
  mostCommon,
  type RawRow,
} from '@sieve/core';
import type { Format, SaidFormat } from '@sieve/contract';
import { AppError } from '../../errors';
import { workbookRows } from '../workbook/read-workbook';

export const MOST_COLUMNS = 300;

const isZip = (bytes: Buffer) => bytes.subarray(0, 4).toString('latin1') === 'PK\x03\x04';
const isOldWorkbook = (bytes: Buffer) => bytes.subarray(0, 4).toString('hex') === 'd0cf11e0';

/**
 * How a file is read: what the person said, and for the rest what its bytes say. The name's ending counts for nothing.
 * Throws AppError for a file that is no table.
 */
export async function findFormat(file: string, name: string, said: SaidFormat): Promise<Format> {
  const { size } = await stat(file);
  if (size === 0) throw new AppError('empty-file', { name });
  const bytes = await head(file);
  if (isOldWorkbook(bytes)) throw new AppError('old-workbook', { name });
  if (isZip(bytes)) {
    return withHeader(file, name, { kind: 'workbook', sheet: said.sheet ?? '', headerRow: 0 }, said);
  }
  const encoding = said.encoding ?? findEncoding(bytes);
  if (!said.encoding && looksBinary(bytes)) throw new AppError('binary-file', { name });
  const delimiter = said.delimiter ?? findDelimiter(new TextDecoder(encoding).decode(bytes.subarray(0, 64 * 1024)));
  return withHeader(file, name, { kind: 'table', encoding, delimiter, headerRow: 0 }, said);
}

async function withHeader(file: string, name: string, format: Format, said: SaidFormat): Promise<Format> {
  const sample = await firstRows(file, name, format, 200);
  if (sample.length === 0) throw new AppError('empty-file', { name });
  const columns = Math.max(...sample.map((row) => row.cells.length));
  const width = mostCommon(sample.map((row) => row.cells.length)) ?? 0;
  if (width > MOST_COLUMNS) throw new AppError('too-many-columns', { name, columns, limit: MOST_COLUMNS });
  return { ...format, headerRow: said.headerRow ?? findHeader(sample.map((row) => row.cells)).row };
}

async function head(file: string): Promise<Buffer> {
  const handle = await open(file);
  try {
    const buffer = Buffer.alloc(ENCODING_SAMPLE_BYTES);
    const { bytesRead } = await handle.read(buffer, 0, buffer.length, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await handle.close();
  }
}

/** The rows of a table that are not blank, some at a time, header and title lines included. */
export async function* tableRows(
  file: string,
  format: Format,
  name: string,
  onSheets?: (names: string[]) => void,
): AsyncGenerator<RawRow[]> {
  const rows =
    format.kind === 'workbook' ? workbookRows(file, name, format.sheet, onSheets) : delimitedRows(file, format);
  for await (const some of rows)
    yield some.filter(({ cells, problem }) => problem !== undefined || cells.some((cell) => cell.trim() !== ''));
}

async function* delimitedRows(file: string, format: Extract<Format, { kind: 'table' }>): AsyncGenerator<RawRow[]> {
  const decoder = new TextDecoder(format.encoding);
  const reader = delimitedReader(format.delimiter);
  for await (const chunk of createReadStream(file, { highWaterMark: 256 * 1024 })) {
    yield reader.push(decoder.decode(chunk as Buffer, { stream: true }));
  }
  yield reader.push(decoder.decode());
  yield reader.end();
}

export async function firstRows(file: string, name: string, format: Format, most: number): Promise<RawRow[]> {
  const out: RawRow[] = [];
  for await (const rows of tableRows(file, format, name)) {
    out.push(...rows);
    if (out.length >= most) break;
  }
  return out.slice(0, most);
}
