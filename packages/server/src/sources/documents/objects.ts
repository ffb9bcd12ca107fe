import { stat } from 'node:fs/promises';
import { LONGEST_CELL, type RawRow } from '@sieve/core';
import { AppError } from '../../errors';
import { linesOf } from './lines';
import { listStream } from './list-stream';
import { readText } from './read-text';

/** Bytes of a JSON document that is read as a whole, which is faster; a longer one is read item by item. */
const LONGEST_DOCUMENT = 64 * 1024 * 1024;
const AT_ONCE = 500;
const DEEPEST = 12;
/** Names that are gathered; a table of more than `MOST_COLUMNS` of them is refused by who reads it. */
const MOST_NAMES = 5000;

type Flat = Map<string, string>;
interface ReadObject {
  line: number;
  /** Null: it cannot be read. */
  flat: Flat | null;
  text: string;
}

/**
 * The objects of a JSON document, or of JSON lines, as rows under the names of their fields: those of nested objects with a dot
 * between (`company.name`), lists of plain values in one cell. Lines are read twice: for the names, then for the values.
 */
export async function* objectRows(
  file: string,
  name: string,
  { encoding, lines }: { encoding: string; lines: boolean },
): AsyncGenerator<RawRow[]> {
  const isShort = !lines && (await stat(file)).size <= LONGEST_DOCUMENT;
  const document = isShort ? inDocument(await readText(file, encoding, LONGEST_DOCUMENT), name) : null;
  const objects = () => document ?? (lines ? inLines(file, encoding) : inStream(file, name, encoding));
  const names = new Set<string>();
  for await (const { flat } of objects())
    for (const key of flat?.keys() ?? []) if (names.size < MOST_NAMES) names.add(key);
  const columns = [...names];
  let rows: RawRow[] = [{ line: 0, cells: columns }];
  for await (const { line, flat, text } of objects()) {
    rows.push(
      flat
        ? { line, cells: columns.map((column) => flat.get(column) ?? '') }
        : { line, cells: [text.slice(0, LONGEST_CELL)], problem: 'record-unreadable' },
    );
    if (rows.length < AT_ONCE) continue;
    yield rows;
    rows = [];
  }
  yield rows;
}

async function* inLines(file: string, encoding: string): AsyncGenerator<ReadObject> {
  for await (const { line, text } of linesOf(file, encoding))
    if (text.trim() !== '') yield { line, flat: readObject(text), text };
}

function readObject(text: string): Flat | null {
  try {
    const value: unknown = JSON.parse(text);
    return isObject(value) ? flatten(value) : null;
  } catch {
    return null;
  }
}

function inDocument(text: string, name: string): ReadObject[] {
  let document: unknown;
  try {
    document = JSON.parse(text);
  } catch {
    throw new AppError('broken-json', { name });
  }
  return listIn(document).map((one, i) => readItem(one, i + 1));
}

async function* inStream(file: string, name: string, encoding: string): AsyncGenerator<ReadObject> {
  let line = 0;
  try {
    for await (const one of listStream(file, encoding)) yield readItem(one, ++line);
  } catch (error) {
    // What the disk says has a code of its own.
    if (error instanceof Error && 'code' in error) throw error;
    throw new AppError('broken-json', { name });
  }
}

/** `line`: its place in the list. */
function readItem(one: unknown, line: number): ReadObject {
  const flat = isObject(one) ? flatten(one) : null;
  return { line, flat, text: flat ? '' : (JSON.stringify(one) ?? '') };
}

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** The list that a document is, or the longest that it holds; an object without one is the only record. */
function listIn(document: unknown): unknown[] {
  if (Array.isArray(document)) return document as unknown[];
  let best: unknown[] = [];
  const waiting: { value: unknown; depth: number }[] = [{ value: document, depth: 0 }];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { value, depth } = next;
    if (Array.isArray(value)) {
      if (value.length > best.length && value.every(isObject)) best = value;
    } else if (isObject(value) && depth < DEEPEST)
      waiting.push(...Object.values(value).map((inner) => ({ value: inner, depth: depth + 1 })));
  }
  return best.length > 0 ? best : [document];
}

function flatten(object: Record<string, unknown>): Flat {
  const out: Flat = new Map();
  const put = (value: unknown, path: string, depth: number) => {
    if (value === null || value === undefined || value === '') return;
    if (typeof value !== 'object') out.set(path, typeof value === 'string' ? value : JSON.stringify(value));
    else if (depth >= DEEPEST) out.set(path, JSON.stringify(value));
    else if (!Array.isArray(value))
      for (const [key, inner] of Object.entries(value)) put(inner, path === '' ? key : `${path}.${key}`, depth + 1);
    else if (value.every((one) => typeof one !== 'object' || one === null))
      out.set(
        path,
        value
          .filter((one) => one !== null)
          .map(String)
          .join('; '),
      );
    else value.forEach((one, i) => put(one, `${path}.${i + 1}`, depth + 1));
  };
  put(object, '', 0);
  return out;
}
