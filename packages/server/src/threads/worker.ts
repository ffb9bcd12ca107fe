import { setMaxListeners } from 'node:events';
import { parentPort } from 'node:worker_threads';
import { zoneOf, type RunInput, type RunKind, type RunPhase, type RunResult, type Settings } from '@sieve/contract';
import { closeDb, openDb, type Db } from '../db/open';
import { AppError, failure, type Failure } from '../errors';
import { runExport } from '../exports/export-run';
import { runHarvest } from '../harvests/harvest-run';
import { asking } from '../outside/ask';
import { callsKept } from '../outside/service-days';
import { directoryClient } from '../outside/directory/client';
import type { RunContext, RunHandler } from '../runs/context';
import { pullBatch } from '../searches/pull-run';
import { runSplit } from '../searches/split-run';
import { askHandler } from '../sieve/ask-run';
import { nothingKept } from '../sieve/kept';
import { runSift } from '../sieve/sift-run';
import { runBringIn } from '../sources/bring-in-run';

/** What a worker thread is given to do: one run. */
export interface WorkerTask {
  settings: Settings;
  dbFile: string;
  runId: number;
  jobId: number;
  input: RunInput;
  dataDir: string;
}

/** What it says while it works, and at its end. */
export type ProgressMessage =
  { type: 'progress'; done: number; total: number; phase: RunPhase | null } | { type: 'sift' };
export type EndMessage =
  | { type: 'done'; result: RunResult }
  | { type: 'later'; result: RunResult; at: number | null }
  | { type: 'stopped' }
  | ({ type: 'failed' } & Failure);
export type WorkerMessage = ProgressMessage | EndMessage;

const PROGRESS_EVERY_MS = 250;

const HANDLERS: { [K in RunKind]: (settings: Settings) => RunHandler<K> } = {
  'bring-in': () => runBringIn,
  sift: () => runSift,
  ask: (settings) => (context) => askHandler(asking(settings, callsKept(context)))(context),
  export: () => runExport,
  pull: (settings) => (context) =>
    pullBatch(context, directoryIn(settings), { ...settings.pace, zone: zoneOf(settings) }),
  harvest: () => runHarvest,
  split: (settings) => (context) => runSplit(context, directoryIn(settings)),
};

function directoryIn({ directory }: Settings) {
  if (!directory) throw new AppError('no-directory');
  return directoryClient(directory);
}

const port = parentPort!;
const say = (message: WorkerMessage) => port.postMessage(message);
let stop = new AbortController();
/** What is kept from one task to the next. */
const kept = nothingKept();

// One task at a time; the thread stays for the next, with what it keeps of the last.
port.on('message', (message: WorkerTask | 'stop') => {
  if (message === 'stop') stop.abort(new Error('stopped'));
  else void work(message);
});

async function work(task: WorkerTask): Promise<void> {
  stop = new AbortController();
  // Every waiting question listens.
  setMaxListeners(0, stop.signal);
  say(
    await done(task).catch((error: unknown) =>
      stop.signal.aborted ? { type: 'stopped' } : { type: 'failed', ...failure(error) },
    ),
  );
}

async function done(task: WorkerTask): Promise<EndMessage> {
  const db = openDb(task.dbFile);
  try {
    return await result(task, db);
  } finally {
    closeDb(db);
  }
}

async function result(task: WorkerTask, db: Db): Promise<EndMessage> {
  let last = 0;
  let unsaid: ProgressMessage | null = null;
  const sayProgress = () => {
    if (unsaid) say(unsaid);
    unsaid = null;
  };
  const handler = HANDLERS[task.input.kind](task.settings) as (context: RunContext) => ReturnType<RunHandler<RunKind>>;
  const running = handler({
    ...task,
    db,
    kept,
    now: Date.now,
    sift: () => say({ type: 'sift' }),
    signal: stop.signal,
    progress: (done, total, phase) => {
      unsaid = { type: 'progress', done, total, phase: phase ?? null };
      if (done < total && Date.now() - last < PROGRESS_EVERY_MS) return;
      last = Date.now();
      sayProgress();
    },
  });
  // However it ends, how far it came is said.
  const result = await running.finally(sayProgress);
  return 'later' in result ? { type: 'later', result: result.later, at: result.at } : { type: 'done', result };
}
