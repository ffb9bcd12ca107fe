import { setMaxListeners } from 'node:events';
import { parentPort } from 'node:worker_threads';
import type { Settings } from '@sieve/contract';
import type { Format, Inspection, RunKind } from '@sieve/contract';
import type { Column } from '@sieve/core';
import { closeDb, openDb, type Db } from '../db/open';
import { AppError, toAppError } from '../errors';
import { inspectFile } from '../sources/inspect';
import { asking } from '../outside/ask';
import { directoryClient } from '../outside/directory/client';
import { askHandler } from '../sieve/ask-run';
import type { RunHandler } from '../runs/context';
import { runExport } from '../exports/export-run';
import { runIntake } from '../sources/bring-in-run';
import { pullBatch } from '../searches/pull-run';
import { runSift } from '../sieve/sift-run';

/** What a worker thread is given to do: one run, or one look into a file. */
export type WorkerTask =
  | {
      type: 'run';
      runId: number;
      jobId: number;
      kind: RunKind;
      input: Record<string, number>;
      settings: Settings;
      dbFile: string;
      dataDir: string;
    }
  | {
      type: 'inspect';
      file: string;
      name: string;
      format: Partial<Format>;
      columns: Column[] | null;
      jobId: number | null;
      dbFile: string;
    };

/** What it says while it works, and at its end. */
export type ProgressMessage = { type: 'progress'; done: number; total: number; message?: string } | { type: 'sift' };
export type EndMessage =
  | { type: 'done'; message: string }
  | { type: 'later'; message: string; at: number | null }
  | { type: 'inspected'; inspection: Inspection }
  | { type: 'stopped' }
  | { type: 'failed'; code: string; details: Record<string, string | number>; words: string; stack: string };
export type WorkerMessage = ProgressMessage | EndMessage;

const PROGRESS_EVERY_MS = 250;

const handlers: Record<RunKind, (settings: Settings) => RunHandler> = {
  intake: () => runIntake,
  sift: () => runSift,
  export: () => runExport,
  append: (settings) => askHandler('append', asking(settings)),
  verify: (settings) => askHandler('verify', asking(settings)),
  pull: (settings) => (context) => {
    if (!settings.directory) throw new AppError('no-directory');
    return pullBatch(context, directoryClient(settings.directory), settings.pace);
  },
};

const port = parentPort!;
const say = (message: WorkerMessage) => port.postMessage(message);
let stop = new AbortController();

// One task at a time; the thread stays for the next, with what it keeps of the last.
port.on('message', (message: WorkerTask | 'stop') => {
  if (message === 'stop') stop.abort(new Error('stopped'));
  else void work(message);
});

async function work(task: WorkerTask): Promise<void> {
  stop = new AbortController();
  // Every waiting question listens.
  setMaxListeners(0, stop.signal);
  const db = openDb(task.dbFile);
  let end: EndMessage;
  try {
    end = await result(task, db);
  } catch (error) {
    end = stop.signal.aborted ? { type: 'stopped' } : failure(error);
  } finally {
    closeDb(db);
  }
  say(end);
}

async function result(task: WorkerTask, db: Db): Promise<EndMessage> {
  if (task.type === 'inspect') {
    const { file, name, format, columns, jobId } = task;
    return { type: 'inspected', inspection: await inspectFile(db, file, name, format, columns, jobId) };
  }
  let last = 0;
  const message = await handlers[task.kind](task.settings)({
    ...task,
    db,
    now: Date.now,
    sift: () => say({ type: 'sift' }),
    signal: stop.signal,
    progress: (done, total, words) => {
      if (done < total && Date.now() - last < PROGRESS_EVERY_MS) return;
      last = Date.now();
      say({ type: 'progress', done, total, ...(words && { message: words }) });
    },
  });
  return typeof message === 'string' ? { type: 'done', message } : { type: 'later', ...message };
}

function failure(error: unknown): EndMessage {
  const { code, details, message } = toAppError(error);
  return { type: 'failed', code, details, words: message, stack: code === 'internal' ? safeStack(error) : '' };
}

/** Where it failed, without the message: that may hold somebody's address. */
const safeStack = (error: unknown) =>
  error instanceof Error
    ? `${error.name}\n${(error.stack ?? '')
        .split('\n')
        .filter((line) => /^\s+at /.test(line))
        .join('\n')}`
    : 'not an error';
