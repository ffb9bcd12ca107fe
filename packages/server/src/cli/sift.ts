import {
  copyFileSync,
  createWriteStream,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join, parse } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { parseArgs } from 'node:util';
import { fileURLToPath } from 'node:url';
import {
  cssPath,
  fieldsOf,
  findRecordSets,
  MAIL_OUT,
  ONLY_VERIFY,
  readPage,
  readSuppression,
  sieveStep,
  stepOf,
  suppressionEntry,
  TARGETS,
  type Column,
  type SieveStep,
} from '@sieve/core';
import { exportLayout, newJob, type InputOf, type RunKind, type Settings, type Summary } from '@sieve/contract';
import * as z from 'zod';
import { readConfig } from '../config';
import { closeDb, openDb, type Db } from '../db/open';
import { decide } from '../decisions/commands';
import { toAppError } from '../errors';
import { runExport } from '../exports/export-run';
import { addExport } from '../exports/store';
import { createJob, jobById } from '../jobs/store';
import { asking } from '../outside/ask';
import { setSuppressed } from '../register/suppressions';
import type { RunContext, RunHandler } from '../runs/context';
import { askHandler } from '../sieve/ask-run';
import { nothingKept } from '../sieve/kept';
import { runSift } from '../sieve/sift-run';
import { verdictList } from '../sieve/verdict-list';
import { readPageText, resolver } from '../sources/documents/page';
import { runBringIn } from '../sources/bring-in-run';
import { inspectFile } from '../sources/inspect';
import { addSource } from '../sources/store';

/** What a job file holds; see docs/sift.md. */
const jobFile = z.strictObject({
  ...newJob.shape,
  columns: z.record(z.string(), z.enum(TARGETS)).default({}),
  /** Steps that are set up otherwise than in a new job; options that are left out are the usual ones. */
  steps: z
    .array(
      sieveStep
        .pick({ kind: true })
        .extend({ on: z.boolean().default(true), options: sieveStep.shape.options.default({}) }),
    )
    .default([]),
  suppress: z.array(z.string()).default([]),
  verify: z.boolean().default(false),
  append: z.boolean().default(false),
  export: exportLayout.prefault({ columns: MAIL_OUT, verdicts: ['valid', 'risky', 'unknown', 'none'] }),
});

const USAGE = `npm run sift -- --in FILE [--in FILE ...] --job JOB.json --out DIR
npm run sift -- --verify FILE --column NAME --out DIR
npm run sift -- --records PAGE.html`;
const EXIT = { done: 0, failed: 1, usage: 2 } as const;

class UsageError extends Error {}

/** The same engine without a screen: a file in, contacts out, counts as JSON. */
async function main(): Promise<string> {
  const { values } = parseArgs({
    options: {
      in: { type: 'string', multiple: true },
      job: { type: 'string' },
      out: { type: 'string' },
      records: { type: 'string' },
      verify: { type: 'string' },
      column: { type: 'string' },
    },
  });
  if (values.records !== undefined) return recordsIn(values.records);
  const { verify: list, column, in: files = list === undefined ? [] : [list], out } = values;
  const isWhole = list === undefined ? values.job !== undefined : column !== undefined && values.job === undefined;
  if (files.length === 0 || !out || !isWhole) throw new UsageError(USAGE);
  for (const file of [...files, ...(values.job ? [values.job] : [])])
    if (!existsSync(file)) throw new UsageError(`There is no file ${file}.`);
  const job = values.job
    ? readJob(values.job)
    : jobFile.parse({
        name: 'Verify',
        verify: true,
        steps: Object.entries(ONLY_VERIFY).map(([kind, on]) => ({ kind, on })),
        columns: { [column!]: 'email' },
      });
  const dataDir = mkdtempSync(join(tmpdir(), 'sift-'));
  const db = openDb(
    join(dataDir, 'sieve.db'),
    fileURLToPath(new URL('../../../packages/server/migrations', import.meta.url)),
  );
  try {
    const { shipped } = readConfig(process.env);
    const work = { db, dataDir, settings: shipped };
    const said = list === undefined ? sift(work, job, files, out) : verified(work, job, list, out);
    return JSON.stringify(await said, null, 1);
  } finally {
    closeDb(db);
    rmSync(dataDir, { recursive: true, force: true });
  }
}

const SAMPLES = 3;

/** The sets of records of a page, best first, a JSON object a line. */
async function recordsIn(file: string): Promise<string> {
  if (!existsSync(file)) throw new UsageError(`There is no file ${file}.`);
  const page = readPage(await readPageText(file));
  return findRecordSets(page)
    .map((set, i) =>
      JSON.stringify({
        rank: i + 1,
        count: set.records.length,
        path: cssPath(set),
        fields: fieldsOf(set, resolver(page, page.address)).map(({ name, values }) => ({
          name,
          filled: values.filter(Boolean).length,
          samples: [...new Set(values.filter(Boolean))].slice(0, SAMPLES),
        })),
      }),
    )
    .join('\n');
}

function readJob(file: string): z.output<typeof jobFile> {
  let raw: unknown;
  try {
    raw = JSON.parse(readFileSync(file, 'utf8'));
  } catch (error) {
    throw new UsageError(`${file} is not JSON: ${(error as Error).message}`);
  }
  const parsed = jobFile.safeParse(raw);
  if (!parsed.success) throw new UsageError(`${file}: ${z.prettifyError(parsed.error)}`);
  return parsed.data;
}

interface Workplace {
  db: Db;
  dataDir: string;
  settings: Settings;
}

/** What runs do, done at once. */
const worker = ({ db, dataDir, settings }: Workplace, jobId: number) => {
  const kept = nothingKept();
  return <K extends RunKind>(handler: RunHandler<K>, input: InputOf<K>) =>
    handler(context(db, dataDir, jobId, input, settings, kept));
};

/** Brings files in, sifts them, and asks what the job says. */
async function bringAndAsk(place: Workplace, jobId: number, job: z.output<typeof jobFile>, files: string[]) {
  const { db, dataDir, settings } = place;
  const work = worker(place, jobId);
  const { entries } = readSuppression(job.suppress.join('\n'), '');
  setSuppressed(
    db,
    entries.map((entry) => suppressionEntry.parse(entry)),
    true,
    0,
  );
  mkdirSync(join(dataDir, 'uploads'));
  const read: Record<string, unknown>[] = [];
  for (const [i, file] of files.entries()) {
    const name = basename(file);
    copyFileSync(file, join(dataDir, 'uploads', String(i)));
    const path = join(dataDir, 'uploads', String(i));
    const found = await inspectFile(db, { file: path, name, said: {}, mapped: null, jobId }, settings.lists);
    const missing = Object.keys(job.columns).filter((column) => !found.columns.some(({ name }) => name === column));
    if (missing.length > 0 && files.length === 1)
      throw new UsageError(
        `${name} has no column ${missing.join(', ')}; it has ${found.columns.map((column) => column.name).join(', ')}.`,
      );
    const columns: Column[] = found.columns.map((column) => ({
      name: column.name,
      target: job.columns[column.name] ?? column.target,
    }));
    const source = { jobId, name, origin: found.format, about: 'people' as const, columns, file: String(i) };
    const sourceId = addSource(db, source, 'you', 0);
    await work(runBringIn, { kind: 'bring-in', sourceId, rows: found.rows });
    read.push({ file: name, rows: found.rows, unread: found.unread, blank: found.blank, issues: found.issues });
  }
  // A step that nobody is asked for lets everybody pass, unless the job file sets it up.
  const asked = { verify: job.verify, 'append-email': job.append };
  const unasked = Object.entries(asked).filter(([, wanted]) => !wanted);
  for (const step of [...unasked.map(([kind]) => ({ kind, on: false, options: {} })), ...job.steps])
    decide(db, jobId, 'you', { kind: 'configure', step: setUp(step) }, 0);
  await work(runSift, { kind: 'sift' });
  for (const [step, wanted] of Object.entries(asked)) {
    if (!wanted) continue;
    await work(askHandler(asking(settings)), { kind: 'ask', step });
    await work(runSift, { kind: 'sift' });
  }
  return read;
}

async function sift(place: Workplace, job: z.output<typeof jobFile>, files: string[], out: string) {
  const { db, dataDir } = place;
  const jobId = createJob(db, job, Date.now());
  const read = await bringAndAsk(place, jobId, job, files);
  const exportId = addExport(db, jobId, job.export, Date.now());
  const written = await worker(place, jobId)(runExport, { kind: 'export', exportId });
  mkdirSync(out, { recursive: true });
  for (const name of readdirSync(join(dataDir, 'exports', String(exportId))))
    copyFileSync(join(dataDir, 'exports', String(exportId), name), join(out, name));
  const { summary, spentCents } = jobById(db, jobId) as { summary: Summary; spentCents: number };
  return { read, ...summary, spentCents, written };
}

/** Writes a list as it came, each row with its verdict. */
async function verified(place: Workplace, job: z.output<typeof jobFile>, file: string, out: string) {
  const jobId = createJob(place.db, job, Date.now());
  const read = await bringAndAsk(place, jobId, job, [file]);
  mkdirSync(out, { recursive: true });
  const name = `${parse(file).name} with verdicts.csv`;
  await pipeline(verdictList(place.db, jobId), createWriteStream(join(out, name)));
  const { verdicts } = (jobById(place.db, jobId) as { summary: Summary }).summary;
  return { read, verdicts, written: name };
}

/** A step with its options read; throws a usage error for options that the step does not have so. */
function setUp({ kind, on, options }: Omit<SieveStep, 'id'>): SieveStep {
  const read = stepOf(kind).options.safeParse(options);
  if (!read.success) throw new UsageError(`step ${kind}: ${z.prettifyError(read.error)}`);
  return { id: kind, kind, on, options: read.data as SieveStep['options'] };
}

const context = <K extends RunKind>(
  db: Db,
  dataDir: string,
  jobId: number,
  input: InputOf<K>,
  settings: Settings,
  kept: RunContext['kept'],
): RunContext<K> => ({
  db,
  runId: 0,
  jobId,
  input,
  settings,
  dataDir,
  kept,
  now: Date.now,
  progress: () => undefined,
  sift: () => undefined,
  signal: new AbortController().signal,
});

main().then(
  (result) => process.stdout.write(`${result}\n`),
  (error: unknown) => {
    const usage = error instanceof UsageError || (error as { code?: string }).code?.startsWith('ERR_PARSE_ARGS');
    process.stderr.write(`${usage ? (error as Error).message : toAppError(error).message}\n`);
    process.exitCode = usage ? EXIT.usage : EXIT.failed;
  },
);
