import type { Column, Decision, SiftInput } from '@sieve/core';
import type { Db } from '../db/open';
import { factsIn, type TableFacts } from '../outside/facts';
import { effectiveSteps, jobRow, standingDecisions } from '../jobs/store';
import { tidiedRows, type OnTidied, type Source, type SourcedRow } from './tidied-rows';

export interface LoadedSift extends SiftInput {
  rows: SourcedRow[];
  facts: TableFacts;
  /** Names of the sources by id. */
  sources: Map<number, string>;
}

/** Everything that the outcome of a job is computed from, the records tidied. */
export async function loadSift(db: Db, jobId: number, onTidied: OnTidied): Promise<LoadedSift> {
  const job = jobRow(db, jobId)!;
  const decisions = standingDecisions(db, jobId);
  const steps = effectiveSteps(job.steps, decisions);
  const sources = sourcesIn(db, jobId, decisions);
  return {
    rows: await tidiedRows(db, { sources, phoneCountry: steps.tidy.phoneCountry, decisions }, onTidied),
    steps,
    decisions,
    facts: factsIn(db),
    suppression: suppressionList(db),
    sources: new Map(sources.map(({ id, name }) => [id, name])),
  };
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

export function suppressionList(db: Db): SiftInput['suppression'] {
  const rows = db.$client.prepare('SELECT value, kind FROM suppressions').all() as { value: string; kind: string }[];
  const of = (kind: string) => new Set(rows.filter((row) => row.kind === kind).map((row) => row.value));
  return { emails: of('email'), domains: of('domain') };
}
