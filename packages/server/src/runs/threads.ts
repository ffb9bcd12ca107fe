import { Worker } from 'node:worker_threads';

/** Tidying makes many objects that live shortly: with more room for them a third of the collecting falls away. */
const ROOMY = { maxYoungGenerationSizeMb: 192 };

export const startThread = (script: string | URL): Worker => new Worker(script, { resourceLimits: ROOMY });

/** A second thread to compute on; null where there is none. */
export type Helper = (() => Worker) | null;

/** Gives the same second thread each time, started when it is first asked for. It keeps nobody from ending. */
export function secondThread(spawn: () => Worker): () => Worker {
  let thread: Worker | null = null;
  return () => {
    if (thread) return thread;
    thread = spawn().once('exit', () => (thread = null));
    // Whoever has given it work hears of its errors.
    thread.on('error', () => undefined).unref();
    return thread;
  };
}
