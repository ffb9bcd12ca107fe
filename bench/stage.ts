// One stage of the engine in a process of its own, so that its peak memory is its own: stage.ts STAGE ROWS DIR
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { matchPeople, MAIL_OUT, NO_LISTS, personKeys, stepOf, tidier, type SieveStep } from '@sieve/core';
import { exportLayout, newJob, settings, SORTS, type InputOf, type RunKind } from '@sieve/contract';
import { closeDb, openDb } from '../packages/server/src/db/open';
import { decide } from '../packages/server/src/decisions/commands';
import { runExport } from '../packages/server/src/exports/export-run';
import { addExport } from '../packages/server/src/exports/store';
import { createJob } from '../packages/server/src/jobs/store';
import { feed, setFed, standingOf } from '../packages/server/src/register/register';
import type { RunContext } from '../packages/server/src/runs/context';
import { nothingKept } from '../packages/server/src/sieve/kept';
import { loadSift } from '../packages/server/src/sieve/load-sift';
import { rowPage } from '../packages/server/src/sieve/rows';
import { runSift } from '../packages/server/src/sieve/sift-run';
import { runBringIn } from '../packages/server/src/sources/bring-in-run';
import { inspectFile } from '../packages/server/src/sources/inspect';
import { addSource, sourceById } from '../packages/server/src/sources/store';

const [stage, rows, dir] = process.argv.slice(2) as [string, string, string];
const migrations = fileURLToPath(new URL('../../packages/server/migrations', import.meta.url));
const db = openDb(join(dir, 'sieve.db'), migrations);
const jobId = 1;
const kept = nothingKept();
const context = <K extends RunKind>(input: InputOf<K>): RunContext<K> => ({
  db,
  runId: 0,
  jobId,
  input,
  settings: settings.parse({}),
  dataDir: dir,
  kept,
  now: Date.now,
  progress: () => undefined,
  sift: () => undefined,
  signal: new AbortController().signal,
});
const sift = () => runSift(context<'sift'>({ kind: 'sift' }));
const bringIn = () => runBringIn(context<'bring-in'>({ kind: 'bring-in', sourceId: 1, rows: Number(rows) }));
const file = { file: join(dir, 'uploads', 'list'), name: 'list.csv', said: {}, mapped: null, jobId };

async function prepareIntake() {
  createJob(db, newJob.parse({ name: 'Bench' }), 0);
  const found = await inspectFile(db, file, NO_LISTS);
  const columns = found.columns.map(({ name, target }) => ({ name, target }));
  addSource(db, { jobId, name: 'list', origin: found.format, about: 'people', columns, file: 'list' }, 'you', 0);
  const setUp = (kind: string, on: boolean, options: object) => {
    const read = stepOf(kind).options.parse(options) as SieveStep['options'];
    decide(db, jobId, 'you', { kind: 'configure', step: { id: kind, kind, on, options: read } }, 0);
  };
  setUp('screen', true, {
    rules: [{ conditions: [{ field: 'title', values: ['driver', 'assistant', 'intern'] }], fate: 'aside' }],
    briefTitles: ['Head of Quality', 'Production Manager'],
    atMostPerCompany: 3,
  });
  // Nobody is asked here: what passes the screen is exported.
  setUp('append-email', false, { candidates: 0 });
  setUp('verify', false, {});
}

function exportAs(form: 'csv' | 'xlsx') {
  const layout = exportLayout.parse({
    columns: MAIL_OUT,
    verdicts: ['valid', 'risky', 'unknown', 'none'],
    onlyNew: false,
    form,
  });
  const exportId = addExport(db, jobId, layout, 0);
  return () => runExport(context<'export'>({ kind: 'export', exportId }));
}

/** People of other jobs, each with an address, a link, a phone and a firm. */
function holdPeople(count: number) {
  const PER_JOB = 100_000;
  for (let from = 0; from < count; from += PER_JOB) {
    const people = Array.from({ length: Math.min(PER_JOB, count - from) }, (_, i) => {
      const n = from + i;
      return {
        item: n,
        keys: [
          `email:held${n}@firm${n % 9973}.example`,
          `profile:people.example/in/held${n}`,
          `at:maren held${n} firm${n % 9973}.example`,
          `of:maren held${n} firm${n % 9973}`,
        ],
      };
    });
    const place = { job: 1000 + from / PER_JOB, about: 'people' as const };
    db.register.transaction(() => feed(db.register, place, [], people))();
  }
  setFed(db.register, 'bench', 1);
}

/** How many of a job's people stand elsewhere. */
async function askWhoIsHeld(): Promise<() => string> {
  holdPeople(1_000_000);
  const people = (await loaded()).rows.map(({ person }) => person);
  return () => {
    const standing = standingOf(db.register, null);
    const held = people.filter((person) => standing(personKeys(person)) !== 'fresh').length;
    return `${held.toLocaleString('en')} of ${people.length.toLocaleString('en')} held, among 1,000,000 others`;
  };
}

const loaded = () => loadSift(db, jobId, { lists: NO_LISTS, now: 0, kept, onTidied: () => undefined });

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
  const input = context<'sift'>({ kind: 'sift' });
  await runSift({ ...input, progress: (_done, _total, next) => onPart(next ?? '') });
  onPart('');
  return [...parts].map(([name, ms]) => `${name} ${(ms / 1000).toFixed(2)}`).join(', ');
}

const STAGES: Record<string, () => Promise<() => unknown>> = {
  intake: async () => (await prepareIntake(), bringIn),
  inspect: async () => () => inspectFile(db, file, NO_LISTS),
  tidy: async () => {
    const { columns } = sourceById(db, 1)!;
    const cells = (db.$client.prepare('SELECT cells FROM records').pluck().all() as string[]).map(
      (text) => JSON.parse(text) as string[],
    );
    const tidy = tidier({ phoneCountry: 'GB', lists: NO_LISTS });
    return () => cells.forEach((row) => tidy(row, columns));
  },
  match: async () => {
    const people = (await loaded()).rows.map(({ person }) => person);
    return () => {
      const { roots, compared } = matchPeople(people, { mergeFrom: 0.97, judgeFrom: 0.4 });
      return `${compared.toLocaleString('en')} pairs compared, ${new Set(roots).size.toLocaleString('en')} people`;
    };
  },
  whole: async () => {
    await prepareIntake();
    return async () => {
      const since = performance.now();
      await bringIn();
      return `bringing in ${((performance.now() - since) / 1000).toFixed(2)}, ${await siftInParts()}`;
    };
  },
  again: async () => {
    await sift();
    decide(db, jobId, 'you', { kind: 'set-aside', recordIds: [1] }, 0);
    return sift;
  },
  'export csv': async () => exportAs('csv'),
  'export xlsx': async () => exportAs('xlsx'),
  pages: async () => slowestPage,
  held: askWhoIsHeld,
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
