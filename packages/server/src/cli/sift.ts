import { copyFileSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { parseArgs } from 'node:util';
import { fileURLToPath } from 'node:url';
import { MAIL_OUT, normaliseEmail, stepOptions, TARGETS, type Column } from '@sieve/core';
import { exportLayout, newJob, type Settings, type Summary } from '@sieve/contract';
import * as z from 'zod';
import { readConfig } from '../config';
import { closeDb, openDb, type Db } from '../db/open';
import { createJob, jobById } from '../jobs/store';
import { addSource } from '../sources/store';
import { decisions, exportsTable } from '../db/schema';
import { toAppError } from '../errors';
import { inspectFile } from '../sources/inspect';
import { asking } from '../outside/ask';
import { askHandler } from '../sieve/ask-run';
import type { RunContext, RunHandler } from '../runs/context';
import { runExport } from '../exports/export-run';
import { runIntake } from '../sources/bring-in-run';
import { runSift } from '../sieve/sift-run';

/** What a job file holds; see docs/sift.md. */
const jobFile = z.strictObject({
  ...newJob.shape,
  columns: z.record(z.string(), z.enum(TARGETS)).default({}),
  steps: z.array(stepOptions).default([]),
  suppress: z.array(z.string()).default([]),
  verify: z.boolean().default(false),
  append: z.boolean().default(false),
  export: exportLayout.prefault({ columns: MAIL_OUT, verdicts: ['valid', 'risky', 'unknown', 'none'] }),
});

const USAGE = 'npm run sift -- --in FILE [--in FILE ...] --job JOB.json --out DIR';
const EXIT = { done: 0, failed: 1, usage: 2 } as const;

class UsageError extends Error {}

/** The same engine without a screen: a file in, contacts out, counts as JSON. */
async function main(): Promise<Record<string, unknown>> {
  const { values } = parseArgs({
    options: { in: { type: 'string', multiple: true }, job: { type: 'string' }, out: { type: 'string' } },
  });
  if (!values.in?.length || !values.job || !values.out) throw new UsageError(USAGE);
  for (const file of [...values.in, values.job])
    if (!existsSync(file)) throw new UsageError(`There is no file ${file}.`);
  const job = readJob(values.job);
  const dataDir = mkdtempSync(join(tmpdir(), 'sift-'));
  const db = openDb(
    join(dataDir, 'sieve.db'),
    fileURLToPath(new URL('../../../packages/server/migrations', import.meta.url)),
  );
  try {
    const { shipped } = readConfig(process.env);
    return await sift(db, dataDir, job, values.in, values.out, shipped);
  } finally {
    closeDb(db);
    rmSync(dataDir, { recursive: true, force: true });
  }
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

async function sift(
  db: Db,
  dataDir: string,
  job: z.output<typeof jobFile>,
  files: string[],
  out: string,
  settings: Settings,
) {
  const jobId = createJob(db, job, Date.now());
  const work = (handler: RunHandler, input: Record<string, number> = {}) =>
    handler(context(db, dataDir, jobId, input, settings));
  const suppress = db.$client.prepare('INSERT OR IGNORE INTO suppressions (value, kind, at) VALUES (?, ?, 0)');
  for (const entry of job.suppress) {
    const email = normaliseEmail(entry);
    suppress.run(email || entry.toLowerCase(), email ? 'email' : 'domain');
  }
  mkdirSync(join(dataDir, 'uploads'));
  const read: Record<string, unknown>[] = [];
  for (const [i, file] of files.entries()) {
    const name = basename(file);
    copyFileSync(file, join(dataDir, 'uploads', String(i)));
    const found = await inspectFile(db, join(dataDir, 'uploads', String(i)), name, {}, null, jobId);
    const columns: Column[] = found.columns.map((column) => ({
      name: column.name,
      target: job.columns[column.name] ?? column.target,
    }));
    const id = addSource(db, { jobId, name, format: found.format, columns, file: String(i) }, 0);
    await work(runIntake, { sourceId: id, rows: found.rows });
    read.push({ file: name, rows: found.rows, unread: found.unread, blank: found.blank, issues: found.issues });
  }
  // A step that nobody is asked for lets everybody pass, unless the job file sets it up.
  const unasked = (['append', 'verify'] as const)
    .filter((kind) => !job[kind])
    .map((kind) => stepOptions.parse({ kind, on: false }));
  for (const options of [...unasked, ...job.steps])
    db.insert(decisions)
      .values({ jobId, at: 0, body: { kind: 'configure', options } })
      .run();
  await work(runSift);
  for (const step of ['verify', 'append'] as const) {
    if (!job[step]) continue;
    await work(askHandler(step, asking(settings)));
    await work(runSift);
  }
  const { id } = db
    .insert(exportsTable)
    .values({ jobId, at: Date.now(), layout: job.export, state: 'writing', files: [] })
    .returning({ id: exportsTable.id })
    .get();
  const written = await work(runExport, { exportId: id });
  mkdirSync(out, { recursive: true });
  for (const name of readdirSync(join(dataDir, 'exports', String(id))))
    copyFileSync(join(dataDir, 'exports', String(id), name), join(out, name));
  const { summary, spentCents } = jobById(db, jobId) as { summary: Summary; spentCents: number };
  return { read, ...summary, spentCents, written };
}

const context = (
  db: Db,
  dataDir: string,
  jobId: number,
  input: Record<string, number>,
  settings: Settings,
): RunContext => ({
  db,
  runId: 0,
  jobId,
  input,
  settings,
  dataDir,
  now: Date.now,
  progress: () => undefined,
  sift: () => undefined,
  signal: new AbortController().signal,
});

main().then(
  (result) => process.stdout.write(`${JSON.stringify(result, null, 1)}\n`),
  (error: unknown) => {
    const usage = error instanceof UsageError || (error as { code?: string }).code?.startsWith('ERR_PARSE_ARGS');
    process.stderr.write(`${usage ? (error as Error).message : toAppError(error).message}\n`);
    process.exitCode = usage ? EXIT.usage : EXIT.failed;
  },
);
