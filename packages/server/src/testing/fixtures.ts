import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Column } from '@sieve/core';
import { newJob, settings, type InputOf, type RunKind } from '@sieve/contract';
import { closeDb, openDb, type Db } from '../db/open';
import { createJob } from '../jobs/store';
import type { RunContext } from '../runs/context';
import { nothingKept } from '../sieve/kept';
import { addSource, recordAdder } from '../sources/store';

/** A database on a folder of its own, gone after the tests of the file. */
export function testDb() {
  const dir = mkdtempSync(join(tmpdir(), 'sieve-test-'));
  const db = openDb(join(dir, 'sieve.db'), join(__dirname, '../../migrations'));
  afterAll(() => {
    closeDb(db);
    rmSync(dir, { recursive: true, force: true });
  });
  return { db, dir };
}

export const testJob = (db: Db, name = 'Test', budgetCents = 0): number =>
  createJob(db, newJob.parse({ name, budgetCents }), 0);

/** A source of a job with its records. */
export function testSource(db: Db, jobId: number, columns: Column[], rows: readonly string[][]): number {
  const origin = { kind: 'table' as const, encoding: 'utf-8', delimiter: ',', headerRow: 0 };
  const sourceId = addSource(db, { jobId, name: 'list', origin, about: 'people', columns, file: '' }, 'you', 0);
  const add = recordAdder(db);
  db.$client.transaction(() => rows.forEach((cells, i) => add(sourceId, i + 1, cells)))();
  return sourceId;
}

/** What a run is given, on the test's own thread. */
export const testContext = <K extends RunKind>(
  db: Db,
  jobId: number,
  input: InputOf<K>,
  more: Partial<RunContext<K>> = {},
): RunContext<K> => ({
  db,
  runId: 1,
  jobId,
  input,
  settings: settings.parse({}),
  dataDir: '',
  kept: nothingKept(),
  now: () => 1_000,
  progress: () => undefined,
  sift: () => undefined,
  signal: new AbortController().signal,
  ...more,
});
