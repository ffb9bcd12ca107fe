import { tidyRow, type Column, type Decision, type SiftInput, type SiftRow } from '@sieve/core';
import type { Db } from '../db/open';
import { factsIn, type TableFacts } from '../db/queries/facts';
import { effectiveSteps, jobRow, standingDecisions } from '../db/queries/jobs';
import { breathe } from './breathe';

/** Rows tidied between two looks at what else there is to do. */
const CHUNK = 2000;

/** A thread keeps what it last computed of a job; not of jobs so large that memory would matter. */
export const MOST_KEPT_ROWS = 200_000;

export interface SourcedRow extends SiftRow {
  sourceId: number;
}

export interface LoadedSift extends SiftInput {
  rows: SourcedRow[];
  facts: TableFacts;
  /** Names of the sources by id. */
  sources: Map<number, string>;
}

/** Everything that the outcome of a job is computed from, the records tidied. */
export async function loadSift(
  db: Db,
  jobId: number,
  onTidied: (done: number, total: number) => void,
): Promise<LoadedSift> {
  const job = jobRow(db, jobId)!;
  const decisions = standingDecisions(db, jobId);
  const steps = effectiveSteps(job.steps, decisions);
  const sources = sourcesIn(db, jobId, decisions);
  return {
    rows: await tidiedRows(db, sources, steps.tidy.phoneCountry, onTidied),
    steps,
    decisions,
    facts: factsIn(db),
    suppression: suppressionList(db),
    sources: new Map(sources.map(({ id, name }) => [id, name])),
  };
}

interface Source {
  id: number;
  name: string;
  columns: Column[];
}

/** The sources whose bringing in has not been taken back. */
function sourcesIn(db: Db, jobId: number, decisions: readonly Decision[]): Source[] {
  const out: Source[] = [];
  const select = db.$client.prepare('SELECT id, name, columns FROM sources WHERE id = ? AND job_id = ?');
  for (const { body } of decisions) {
    if (body.kind !== 'bring-in') continue;
    const row = select.get(body.sourceId, jobId) as { id: number; name: string; columns: string } | undefined;
    if (row) out.push({ ...row, columns: JSON.parse(row.columns) as Column[] });
  }
  return out.sort((a, b) => a.id - b.id);
}

/** The last rows that this thread tidied. Records are never changed, so they hold as long as the key does. */
let last: { key: string; rows: SourcedRow[] } | null = null;

async function tidiedRows(
  db: Db,
  sources: Source[],
  phoneCountry: string,
  onTidied: (done: number, total: number) => void,
): Promise<SourcedRow[]> {
  const countOf = db.$client.prepare('SELECT count(*) FROM records WHERE source_id = ?').pluck();
  const counts = sources.map(({ id }) => countOf.get(id) as number);
  const key = JSON.stringify([db.$client.name, phoneCountry, sources, counts]);
  if (last?.key === key) return last.rows;
  last = null;
  const rows: SourcedRow[] = [];
  const total = counts.reduce((sum, count) => sum + count, 0);
  const read = db.$client
    .prepare('SELECT id, cells FROM records WHERE source_id = ? AND id > ? ORDER BY id LIMIT ?')
    .raw();
  for (const { id: sourceId, columns } of sources) {
    for (let after = 0; ;) {
      const found = read.all(sourceId, after, CHUNK) as [id: number, cells: string][];
      if (found.length === 0) break;
      after = found.at(-1)![0];
      for (const [recordId, cells] of found)
        rows.push({ recordId, row: tidyRow(JSON.parse(cells) as string[], columns, phoneCountry), sourceId });
      onTidied(rows.length, total);
      await breathe();
    }
  }
  if (rows.length <= MOST_KEPT_ROWS) last = { key, rows };
  return rows;
}

export function suppressionList(db: Db): SiftInput['suppression'] {
  const rows = db.$client.prepare('SELECT value, kind FROM suppressions').all() as { value: string; kind: string }[];
  const of = (kind: string) => new Set(rows.filter((row) => row.kind === kind).map((row) => row.value));
  return { emails: of('email'), domains: of('domain') };
}
