import type { Worker } from 'node:worker_threads';
import type { EndMessage, ProgressMessage, WorkerMessage, WorkerTask } from './worker';

/** A thread that keeps what it last computed is let go after this long without work. */
const IDLE_MS = 10 * 60_000;

export type Crew = ReturnType<typeof createCrew>;

export interface Hand {
  /** How the task ended; null when the thread ended first. */
  ended: Promise<EndMessage | null>;
  /** Asks the thread to stop between two units of work. */
  stop: () => void;
  /** Ends the thread where it is. */
  kill: () => Promise<unknown>;
}

/**
 * Gives tasks to worker threads. The thread of a task that `keeps` what it computed is kept for the next such task;
 * others end with their task.
 */
export function createCrew(spawn: () => Worker) {
  let spare: Worker | null = null;
  let letGo: NodeJS.Timeout | undefined;

  function give(task: WorkerTask, keeps: boolean, onProgress: (message: ProgressMessage) => void): Hand {
    const worker = (keeps && spare) || hire();
    if (worker === spare) {
      spare = null;
      clearTimeout(letGo);
    }
    const ended = new Promise<EndMessage | null>((resolve) => {
      const onMessage = (message: WorkerMessage) => {
        if (message.type === 'progress' || message.type === 'sift') return onProgress(message);
        worker.off('message', onMessage).off('error', onError).off('exit', onExit);
        if (keeps && !spare) {
          spare = worker;
          letGo = setTimeout(() => void dismiss(), IDLE_MS).unref();
        } else void worker.terminate();
        resolve(message);
      };
      const onError = ({ name }: Error) => resolve({ type: 'failed', code: 'internal', details: {}, stack: name });
      const onExit = () => resolve(null);
      worker.on('message', onMessage).on('error', onError).on('exit', onExit);
    });
    worker.postMessage(task);
    return { ended, stop: () => worker.postMessage('stop'), kill: () => worker.terminate() };
  }

  function hire(): Worker {
    const worker = spawn();
    return worker.once('exit', () => {
      if (spare === worker) spare = null;
    });
  }

  /** Lets the waiting thread go, and what it keeps. */
  async function dismiss() {
    const idle = spare;
    spare = null;
    await idle?.terminate();
  }

  return { give, dismiss };
}
