import {
  companySifter,
  rowSifter,
  sortDecisions,
  type CompanyRow,
  type Decision,
  type SiftRow,
  type TidyWith,
} from '@sieve/core';
import type { Db } from '../db/open';
import { cellsOf, recordCount, recordsBehind, type SourceIn } from '../sources/store';
import { breathe } from '../threads/breathe';
import { MOST_KEPT_ROWS, type Kept } from './kept';

export interface SourcedRow extends SiftRow {
  sourceId: number;
}
export interface SourcedCompany extends CompanyRow {
  sourceId: number;
}

/** What tidied rows depend on, besides the records. */
export interface Tidying extends TidyWith {
  sources: readonly SourceIn[];
  decisions: readonly Decision[];
}

export type OnTidied = (done: number, total: number) => void;

/** Rows tidied between two looks at what else there is to do. */
const CHUNK = 1000;

/** The records of the sources, ready to sift, in the order of the sources and their ids. Equal input gives the very same rows. */
export async function tidiedRows(
  db: Db,
  tidying: Tidying,
  kept: Kept,
  onTidied: OnTidied,
): Promise<{ rows: SourcedRow[]; companies: SourcedCompany[] }> {
  const { sources, phoneCountry, lists, decisions } = tidying;
  const counts = sources.map(({ id }) => recordCount(db, id));
  const everywhere = decisions.filter(({ body }) => body.kind === 'refuse-like');
  const key = JSON.stringify([db.$client.name, phoneCountry, lists, sources, everywhere, counts]);
  if (kept.tidied?.key !== key) {
    kept.tidied = kept.edited = null;
    const total = counts.reduce((sum, count) => sum + count, 0);
    const all = await allRows(db, { ...tidying, decisions: everywhere }, (done) => onTidied(done, total));
    kept.tidied = { key, ...all };
  }
  const { companies } = kept.tidied;
  const rows = withEdits(db, kept.tidied.rows, tidying, kept);
  if (rows.length > MOST_KEPT_ROWS) kept.tidied = kept.edited = null;
  return { rows, companies };
}

async function allRows(db: Db, tidying: Tidying, onTidied: (done: number) => void) {
  const sifted = rowSifter(tidying, sortDecisions(tidying.decisions));
  const company = companySifter(tidying);
  const rows: SourcedRow[] = [];
  const companies: SourcedCompany[] = [];
  for (const { id: sourceId, columns, about } of tidying.sources) {
    const next = recordsBehind(db, sourceId, CHUNK);
    for (let behind = 0; ;) {
      const records = next(behind);
      for (const [id, cells] of records)
        if (about === 'people') rows.push(Object.assign(sifted(id, cells, columns), { sourceId }));
        else companies.push({ ...company(id, cells, columns), sourceId });
      onTidied(rows.length + companies.length);
      await breathe();
      if (records.length < CHUNK) break;
      behind = records.at(-1)![0];
    }
  }
  return { rows, companies };
}

/** The rows with what was refused or written in single records. */
function withEdits(db: Db, rows: SourcedRow[], tidying: Tidying, kept: Kept): SourcedRow[] {
  const { sources, decisions } = tidying;
  const edits = decisions.filter(({ body }) => ['edit', 'choose', 'refuse'].includes(body.kind));
  if (edits.length === 0) return rows;
  const key = JSON.stringify(edits);
  if (kept.edited?.of === rows && kept.edited.key === key) return kept.edited.rows;
  const said = sortDecisions(decisions);
  const sifted = rowSifter(tidying, said);
  const cells = cellsOf(db);
  const columnsOf = new Map(sources.map(({ id, columns }) => [id, columns]));
  const edited = rows.map((row) => {
    const { recordId, sourceId } = row;
    if (!said.edits.has(recordId) && !said.refused.has(recordId)) return row;
    return { ...sifted(recordId, cells(recordId), columnsOf.get(sourceId)!), sourceId };
  });
  kept.edited = { of: rows, key, rows: edited };
  return edited;
}
