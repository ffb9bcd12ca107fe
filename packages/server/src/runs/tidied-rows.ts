import type { Worker } from 'node:worker_threads';
import { personOf, personValues, siftRow, sortDecisions, type Column, type Decision, type SiftRow } from '@sieve/core';
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
  decisions: Decision[];
}

/** What tidied rows depend on, besides the records. */
export interface Tidying {
  sources: readonly Source[];
  phoneCountry: string;
  decisions: readonly Decision[];
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
/** The same with what was said of single records. */
let lastEdited: { rows: SourcedRow[]; key: string; edited: SourcedRow[] } | null = null;

/** The records of the sources, ready to sift, in the order of the sources and their ids. Equal input gives the very same rows. */
export async function tidiedRows(
  db: Db,
  { sources, phoneCountry, decisions }: Tidying,
  onTidied: OnTidied,
  helper: Helper,
): Promise<SourcedRow[]> {
  const idsOf = db.$client.prepare('SELECT id FROM records WHERE source_id = ? ORDER BY id').pluck();
  const ids = sources.map(({ id }) => idsOf.all(id) as number[]);
  const everywhere = decisions.filter(({ body }) => body.kind === 'refuse-like');
  const key = JSON.stringify([db.$client.name, phoneCountry, sources, everywhere, ids.map(({ length }) => length)]);
  if (last?.key !== key) {
    last = lastEdited = null;
    const parts = sources.flatMap(({ id, columns }, s) =>
      partsOf(ids[s]!, { sourceId: id, columns, phoneCountry, decisions: everywhere }),
    );
    last = { key, rows: await allRows(db, parts, onTidied, helper) };
  }
  const rows = withEdits(db, last.rows, { sources, phoneCountry, decisions });
  if (rows.length > MOST_KEPT_ROWS) last = lastEdited = null;
  return rows;
}

function partsOf(ids: readonly number[], rest: Omit<Part, 'from' | 'to'>): Part[] {
  const parts: Part[] = [];
  for (let at = 0; at < ids.length; at += CHUNK)
    parts.push({ ...rest, from: ids[at]!, to: ids[Math.min(at + CHUNK, ids.length) - 1]! });
  return parts;
}

/** This thread starts at the front, a second one at the back. */
async function allRows(db: Db, parts: readonly Part[], onTidied: OnTidied, helper: Helper): Promise<SourcedRow[]> {
  const total = parts.length * CHUNK;
  const tidied: SourcedRow[][] = [];
  let front = 0;
  let back = parts.length - 1;
  let done = 0;
  const put = (at: number, rows: SourcedRow[]) => {
    tidied[at] = rows;
    onTidied((done += CHUNK), total);
  };
  const here = async () => {
    while (front <= back) {
      const at = front++;
      put(at, tidyPart(db, parts[at]!));
      await breathe();
    }
  };
  if (!helper || total < WORTH_HELP) await here();
  else {
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
  }
  return tidied.flat();
}

function tidyPart(db: Db, { sourceId, columns, from, to, phoneCountry, decisions }: Part): SourcedRow[] {
  const said = sortDecisions(decisions);
  const records = db.$client
    .prepare('SELECT id, cells FROM records WHERE source_id = ? AND id BETWEEN ? AND ? ORDER BY id')
    .raw()
    .all(sourceId, from, to) as [id: number, cells: string][];
  return records.map(([id, cells]) => ({
    ...siftRow(id, JSON.parse(cells) as string[], columns, phoneCountry, said),
    sourceId,
  }));
}

/** The rows with what was refused or written in single records. */
function withEdits(db: Db, rows: SourcedRow[], { sources, phoneCountry, decisions }: Tidying): SourcedRow[] {
  const edits = decisions.filter(({ body }) => body.kind === 'edit' || body.kind === 'refuse');
  if (edits.length === 0) return rows;
  const key = JSON.stringify(edits);
  if (lastEdited?.rows === rows && lastEdited.key === key) return lastEdited.edited;
  const said = sortDecisions(decisions);
  const cellsOf = db.$client.prepare('SELECT cells FROM records WHERE id = ?').pluck();
  const columnsOf = new Map(sources.map(({ id, columns }) => [id, columns]));
  const edited = rows.map((row) => {
    const { recordId, sourceId } = row;
    if (!said.edits.has(recordId) && !said.refused.has(recordId)) return row;
    const cells = JSON.parse(cellsOf.get(recordId) as string) as string[];
    return { ...siftRow(recordId, cells, columnsOf.get(sourceId)!, phoneCountry, said), sourceId };
  });
  lastEdited = { rows, key, edited };
  return edited;
}

/** Rows as they go from thread to thread: as text, without the names of fields, which is quicker than as objects. */
type Sent = [values: string[], extra: SourcedRow['extra'], changes: number, nobody: boolean, recordId: number];

export function sendPart(db: Db, part: Part): string {
  const rows = tidyPart(db, part).map(({ person, extra, changes, nobody, recordId }): Sent => [
    personValues(person),
    extra,
    changes,
    nobody,
    recordId,
  ]);
  return JSON.stringify(rows);
}

const received = (sent: string, { sourceId }: Part): SourcedRow[] =>
  (JSON.parse(sent) as Sent[]).map(([values, extra, changes, nobody, recordId]) => ({
    recordId,
    person: personOf(values),
    extra,
    changes,
    nobody,
    sourceId,
  }));

/** Has parts tidied in the second thread, which answers in turn. */
function tidyingBeside(thread: Worker, dbFile: string) {
  const waiting: { resolve: (sent: string) => void; reject: (error: Error) => void }[] = [];
  const fail = (error: Error) => waiting.splice(0).forEach(({ reject }) => reject(error));
  const hear = (message: WorkerMessage) => {
    if (message.type === 'tidied') waiting.shift()?.resolve(message.rows);
    else if (message.type === 'failed') fail(new Error(message.words));
  };
  thread.ref();
  thread.on('error', fail).on('message', hear);
  return {
    tidy: async (part: Part) => {
      const answer = new Promise<string>((resolve, reject) => waiting.push({ resolve, reject }));
      thread.postMessage({ type: 'tidy', dbFile, part } satisfies WorkerTask);
      return received(await answer, part);
    },
    /** Lets the thread go; one that still has something to answer is ended, so that nobody else hears it. */
    end: () => {
      thread.off('error', fail).off('message', hear).unref();
      if (waiting.length > 0) void thread.terminate();
    },
  };
}
