import { siftRow, sortDecisions, type Column, type Decision, type SiftRow } from '@sieve/core';
import type { Db } from '../db/open';
import { breathe } from '../threads/breathe';

export interface Source {
  id: number;
  name: string;
  columns: Column[];
}

export interface SourcedRow extends SiftRow {
  sourceId: number;
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

/** A thread keeps what it last computed of a job; not of jobs so large that memory would matter. */
export const MOST_KEPT_ROWS = 500_000;

/** The last rows that this thread tidied. Records are never changed, so they hold as long as the key does. */
let last: { key: string; rows: SourcedRow[] } | null = null;
/** The same with what was said of single records. */
let lastEdited: { rows: SourcedRow[]; key: string; edited: SourcedRow[] } | null = null;

/** The records of the sources, ready to sift, in the order of the sources and their ids. Equal input gives the very same rows. */
export async function tidiedRows(db: Db, tidying: Tidying, onTidied: OnTidied): Promise<SourcedRow[]> {
  const { sources, phoneCountry, decisions } = tidying;
  const countOf = db.$client.prepare('SELECT count(*) FROM records WHERE source_id = ?').pluck();
  const counts = sources.map(({ id }) => countOf.get(id) as number);
  const everywhere = decisions.filter(({ body }) => body.kind === 'refuse-like');
  const key = JSON.stringify([db.$client.name, phoneCountry, sources, everywhere, counts]);
  if (last?.key !== key) {
    last = lastEdited = null;
    const total = counts.reduce((sum, count) => sum + count, 0);
    last = { key, rows: await allRows(db, { ...tidying, decisions: everywhere }, (done) => onTidied(done, total)) };
  }
  const rows = withEdits(db, last.rows, tidying);
  if (rows.length > MOST_KEPT_ROWS) last = lastEdited = null;
  return rows;
}

async function allRows(db: Db, { sources, phoneCountry, decisions }: Tidying, onTidied: (done: number) => void) {
  const said = sortDecisions(decisions);
  const next = db.$client
    .prepare('SELECT id, cells FROM records WHERE source_id = ? AND id > ? ORDER BY id LIMIT ?')
    .raw();
  const rows: SourcedRow[] = [];
  for (const { id: sourceId, columns } of sources) {
    for (let behind = 0; ;) {
      const records = next.all(sourceId, behind, CHUNK) as [id: number, cells: string][];
      for (const [id, cells] of records) {
        const row = siftRow(id, JSON.parse(cells) as string[], columns, phoneCountry, said);
        rows.push(Object.assign(row, { sourceId }));
      }
      onTidied(rows.length);
      await breathe();
      if (records.length < CHUNK) break;
      behind = records.at(-1)![0];
    }
  }
  return rows;
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
