// One stage of the engine in a process of its own, so that its peak memory is its own: stage.ts STAGE ROWS DIR
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { matchPeople, MAIL_OUT, tidyRow } from '@sieve/core';
import { exportLayout, settings, SORTS } from '@sieve/contract';
import { closeDb, openDb } from '../packages/server/src/db/open';
import { createJob } from '../packages/server/src/jobs/store';
import { rowPage } from '../packages/server/src/sieve/rows';
import { decisions, exportsTable, sources } from '../packages/server/src/db/schema';
import { inspectFile } from '../packages/server/src/sources/inspect';
import { runExport } from '../packages/server/src/exports/export-run';
import { runIntake } from '../packages/server/src/sources/bring-in-run';
import { loadSift } from '../packages/server/src/sieve/load-sift';
import { runSift } from '../packages/server/src/sieve/sift-run';

const [stage, rows, dir] = process.argv.slice(2) as [string, string, string];
const migrations = fileURLToPath(new URL('../../packages/server/migrations', import.meta.url));
const db = openDb(join(dir, 'sieve.db'), migrations);
const jobId = 1;
const context = (input: Record<string, number> = {}) => ({
  db,
  runId: 0,
  jobId,
  input,
  settings: settings.parse({}),
  dataDir: dir,
  now: Date.now,
  progress: () => undefined,
  sift: () => undefined,
  signal: new AbortController().signal,
});

async function prepareIntake() {
  createJob(db, { name: 'Bench', folder: '', note: '', targetValid: 0, budgetCents: 0 }, 0);
  const found = await inspectFile(db, join(dir, 'uploads', 'list'), 'list.csv', {}, null, jobId);
  const columns = found.columns.map(({ name, target }) => ({ name, target }));
  db.insert(sources).values({ jobId, name: 'list', format: found.format, columns, file: 'list', createdAt: 0 }).run();
  db.insert(decisions)
    .values({ jobId, at: 0, body: { kind: 'bring-in', sourceId: 1, name: 'list' } })
    .run();
  const screen = {
    kind: 'screen',
    rules: [{ field: 'title', words: ['driver', 'assistant', 'intern'], fate: 'aside' }],
    briefTitles: ['Head of Quality', 'Production Manager'],
    suppression: true,
    atMostPerCompany: 3,
  } as const;
  db.insert(decisions)
    .values({ jobId, at: 0, body: { kind: 'configure', options: { ...screen, rules: [...screen.rules] } as never } })
    .run();
  // Nobody is asked here: what passes the screen is exported.
  for (const options of [
    { kind: 'append' as const, on: false, candidates: 0, finders: [] },
    { kind: 'verify' as const, on: false },
  ])
    db.insert(decisions)
      .values({ jobId, at: 0, body: { kind: 'configure', options } })
      .run();
}

async function exportAs(form: 'csv' | 'xlsx') {
  const layout = exportLayout.parse({
    columns: MAIL_OUT,
    verdicts: ['valid', 'risky', 'unknown', 'none'],
    onlyNew: false,
    form,
  });
  const { id } = db
    .insert(exportsTable)
    .values({ jobId, at: 0, layout, state: 'writing', files: [] })
    .returning({ id: exportsTable.id })
    .get();
  return () => runExport(context({ exportId: id }));
}

/** Milliseconds of the slowest page of 100 rows, over every order, at the start, the middle and the end. */
function slowestPage(): string {
  let slowest = 0;
  let name = '';
  for (const sort of SORTS)
    for (const q of ['', 'wells'])
      for (const part of [0, 0.5, 0.99]) {
        const from = performance.now();
        const offset = Math.floor(Number(rows) * 0.5 * part);
        rowPage(db, jobId, { step: 'tidy', fate: 'pass', q, sort, desc: part === 0.5, offset, limit: 100 });
        const took = performance.now() - from;
        if (took > slowest) [slowest, name] = [took, `${sort}${q && ` filtered`} at ${offset}`];
      }
  return `slowest page ${slowest.toFixed(0)} ms (${name})`;
}

/** Sifts, and tells how long each part took. */
async function siftInParts(): Promise<string> {
  const parts = new Map<string, number>();
  let part = '';
  let since = performance.now();
  const onPart = (next: string) => {
    if (part) parts.set(part, (parts.get(part) ?? 0) + performance.now() - since);
    [part, since] = [next, performance.now()];
  };
  await runSift({ ...context(), progress: (_done, _total, next = '') => onPart(next) });
  onPart('');
  return [...parts].map(([name, ms]) => `${name} ${(ms / 1000).toFixed(2)}`).join(', ');
}

const STAGES: Record<string, () => Promise<() => unknown>> = {
  intake: async () => (await prepareIntake(), () => runIntake(context({ sourceId: 1, rows: Number(rows) }))),
  tidy: async () => {
    const columns = db.select().from(sources).get()!.columns;
    const cells = (db.$client.prepare('SELECT cells FROM records').pluck().all() as string[]).map(
      (text) => JSON.parse(text) as string[],
    );
    return () => cells.forEach((row) => tidyRow(row, columns, 'GB'));
  },
  match: async () => {
    const people = (await loadSift(db, jobId, () => undefined)).rows.map(({ person }) => person);
    return () => {
      const { roots, compared } = matchPeople(people, { mergeFrom: 0.97, judgeFrom: 0.4 });
      return `${compared.toLocaleString('en')} pairs compared, ${new Set(roots).size.toLocaleString('en')} people`;
    };
  },
  whole: async () => {
    await prepareIntake();
    return async () => {
      const since = performance.now();
      await runIntake(context({ sourceId: 1, rows: Number(rows) }));
      return `bringing in ${((performance.now() - since) / 1000).toFixed(2)}, ${await siftInParts()}`;
    };
  },
  again: async () => {
    await runSift(context());
    db.insert(decisions)
      .values({ jobId, at: 0, body: { kind: 'set-aside', recordIds: [1] } })
      .run();
    return () => runSift(context());
  },
  'export csv': () => exportAs('csv'),
  'export xlsx': () => exportAs('xlsx'),
  pages: async () => slowestPage,
};

const run = await STAGES[stage]!();
const from = performance.now();
const said = await run();
const seconds = (performance.now() - from) / 1000;
closeDb(db);
process.stdout.write(
  JSON.stringify({
    seconds,
    peakMb: process.resourceUsage().maxRSS / 1024,
    said: typeof said === 'string' ? said : '',
  }),
);
