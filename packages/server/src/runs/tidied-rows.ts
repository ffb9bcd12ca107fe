import type { Worker } from 'node:worker_threads';
import { tidyRow, type Column, type SiftRow } from '@sieve/core';
import type { Db } from '../db/open';
import { breathe } from './breathe';
import type { Helper } from './threads';
import type { WorkerMessage, WorkerTask } from './worker';

export interface Source {
  id: number;
  name: string;
  columns: Column[];
}

export interface SourcedRow extends SiftRow {
  sourceId: number;
}

/** Some records of one source, by id, both ends included. */
export interface Part {
  sourceId: number;
  columns: Column[];
  from: number;
  to: number;
  phoneCountry: string;
}

export type OnTidied = (done: number, total: number) => void;

/** Rows tidied between two looks at what else there is to do. */
const CHUNK = 1000;
/** Fewer rows are not worth a second thread. */
export const WORTH_HELP = 20_000;
/** Parts that the second thread has at a time, so that it never waits for this one. */
const AHEAD = 2;

/** A thread keeps what it last computed of a job; not of jobs so large that memory would matter. */
export const MOST_KEPT_ROWS = 200_000;

/** The last rows that this thread tidied. Records are never changed, so they hold as long as the key does. */
let last: { key: string; rows: SourcedRow[] } | null = null;

/** The records of the sources, tidied, in the order of their ids; this thread starts at the front, a helper at the back. */
export async function tidiedRows(
  db: Db,
  sources: readonly Source[],
  phoneCountry: string,
  onTidied: OnTidied,
  helper: Helper,
): Promise<SourcedRow[]> {
  const idsOf = db.$client.prepare('SELECT id FROM records WHERE source_id = ? ORDER BY id').pluck();
  const ids = sources.map(({ id }) => idsOf.all(id) as number[]);
  const key = JSON.stringify([db.$client.name, phoneCountry, sources, ids.map(({ length }) => length)]);
  if (last?.key === key) return last.rows;
  last = null;
  const parts = sources.flatMap(({ id, columns }, s) => partsOf(ids[s]!, { sourceId: id, columns, phoneCountry }));
  const total = ids.reduce((sum, { length }) => sum + length, 0);
  const tidied: SourcedRow[][] = [];
  let front = 0;
  let back = parts.length - 1;
  let done = 0;
  const put = (at: number, rows: SourcedRow[]) => {
    tidied[at] = rows;
    onTidied((done += rows.length), total);
  };
  const here = async () => {
    while (front <= back) {
      const at = front++;
      put(at, tidyPart(db, parts[at]!));
      await breathe();
    }
  };
  if (helper && total >= WORTH_HELP) {
    const { tidy, end } = tidyingBeside(helper(), db.$client.name);
    const beside = async () => {
      while (front <= back) {
        const at = back--;
        put(at, await tidy(parts[at]!));
      }
    };
    try {
      await Promise.all([here(), ...Array.from({ length: AHEAD }, beside)]);
    } finally {
      end();
    }
  } else await here();
  const rows = tidied.flat();
  if (rows.length <= MOST_KEPT_ROWS) last = { key, rows };
  return rows;
}

function partsOf(ids: readonly number[], rest: Omit<Part, 'from' | 'to'>): Part[] {
  const parts: Part[] = [];
  for (let at = 0; at < ids.length; at += CHUNK)
    parts.push({ ...rest, from: ids[at]!, to: ids[Math.min(at + CHUNK, ids.length) - 1]! });
  return parts;
}

export function tidyPart(db: Db, { sourceId, columns, from, to, phoneCountry }: Part): SourcedRow[] {
  const records = db.$client
    .prepare('SELECT id, cells FROM records WHERE source_id = ? AND id BETWEEN ? AND ? ORDER BY id')
    .raw()
    .all(sourceId, from, to) as [id: number, cells: string][];
  return records.map(([recordId, cells]) => ({
    recordId,
    row: tidyRow(JSON.parse(cells) as string[], columns, phoneCountry),
    sourceId,
  }));
}

/** Has parts tidied in the second thread, which answers in turn. Rows come back as JSON: objects are slower to hand over. */
function tidyingBeside(thread: Worker, dbFile: string) {
  const waiting: { resolve: (rows: SourcedRow[]) => void; reject: (error: Error) => void }[] = [];
  const fail = (error: Error) => waiting.splice(0).forEach(({ reject }) => reject(error));
  const hear = (message: WorkerMessage) => {
    if (message.type === 'tidied') waiting.shift()?.resolve(JSON.parse(message.rows) as SourcedRow[]);
    else if (message.type === 'failed') fail(new Error(message.words));
  };
  thread.ref();
  thread.on('error', fail).on('message', hear);
  return {
    tidy: (part: Part) =>
      new Promise<SourcedRow[]>((resolve, reject) => {
        waiting.push({ resolve, reject });
        thread.postMessage({ type: 'tidy', dbFile, part } satisfies WorkerTask);
      }),
    /** Lets the thread go; one that still has something to answer is ended, so that nobody else hears it. */
    end: () => {
      thread.off('error', fail).off('message', hear).unref();
      if (waiting.length > 0) void thread.terminate();
    },
  };
}
