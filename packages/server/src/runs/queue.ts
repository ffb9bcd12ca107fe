import type { Run, RunAction, RunInput, RunKind, RunPhase, RunState, ServerEvent, Settings } from '@sieve/contract';
import type { Db } from '../db/open';
import { AppError, toAppError } from '../errors';
import { jobRow } from '../jobs/store';
import { jobsToSift } from '../sieve/outcomes';
import type { Crew, Hand } from '../threads/crew';
import {
  addRun,
  listedRuns,
  queuedRuns,
  queuedSift,
  requeueRunning,
  runRow,
  setRun,
  type RunChange,
  type RunEnd,
  type RunTableRow,
} from './store';

export interface QueueOptions {
  db: Db;
  dbFile: string;
  dataDir: string;
  crew: Crew;
  settings: () => Settings;
  emit: (event: ServerEvent) => void;
  log: (fields: object, message: string) => void;
  now: () => number;
}

export type Queue = ReturnType<typeof createQueue>;

/** Timers hold no more than about 24 days. */
const LONGEST_TIMER_MS = 86_400_000;
const TRY_AGAIN_MS = 2000;
const OWED_AGAIN_MS = 250;

/** Five lanes, one run at a time in each: what computes, what asks finders and mail servers, what pulls from a directory, what only counts there, what visits web pages. */
const LANES: Record<RunKind, 'compute' | 'ask' | 'pull' | 'count' | 'web'> = {
  'bring-in': 'compute',
  sift: 'compute',
  export: 'compute',
  ask: 'ask',
  pull: 'pull',
  split: 'count',
  harvest: 'web',
};
/** After these the job is sifted. */
const CHANGES_JOB: readonly RunKind[] = ['bring-in', 'ask', 'pull', 'harvest'];

const FITS: Record<RunAction, readonly RunState[]> = {
  pause: ['queued', 'running'],
  resume: ['paused', 'failed', 'cancelled'],
  cancel: ['queued', 'running', 'paused'],
};
const WANTED: Record<RunAction, RunState> = { pause: 'paused', resume: 'queued', cancel: 'cancelled' };

interface Active {
  hand: Hand;
  kind: RunKind;
  stopAs: RunState | null;
  done: number;
  total: number;
  phase: RunPhase | null;
  marks: [at: number, done: number][];
}

/** A durable queue: runs are rows, work happens in worker threads, and what a crash left running is started again. */
export function createQueue(options: QueueOptions) {
  const { db, now } = options;
  const active = new Map<number, Active>();
  let closing = false;
  let waiting: NodeJS.Timeout | undefined;
  const owed: (() => void)[] = [];
  let owing: NodeJS.Timeout | undefined;
  /** What became of runs, while it is not written. */
  const unwritten = new Map<number, RunChange>();

  /** Called in the transaction of what it is for: it starts once that is written. */
  function enqueue(jobId: number, input: RunInput): number {
    const same = input.kind === 'sift' ? queuedSift(db, jobId) : undefined;
    if (same) return same.id;
    const id = addRun(db, jobId, input, now());
    setImmediate(() => {
      if (closing) return;
      announce(id);
      kick();
    });
    return id;
  }

  /** Writes what became of a run. What the disk refuses is tried again until it is written, in order. */
  function keep(work: () => void) {
    if (owed.length === 0) {
      try {
        return work();
      } catch (error) {
        const { code } = toAppError(error);
        // Others write all the time; theirs is over soon.
        if (code !== 'locked') options.log({ code }, 'what became of a run could not be written; it is tried again');
      }
    }
    owed.push(work);
    owing ??= setInterval(tryOwed, OWED_AGAIN_MS).unref();
  }

  /** Throws while the disk still refuses. */
  function payOwed() {
    for (let work = owed[0]; work; work = owed[0]) {
      work();
      owed.shift();
    }
    clearInterval(owing);
    owing = undefined;
    unwritten.clear();
  }

  function tryOwed() {
    try {
      payOwed();
    } catch {
      // Said when it was refused first.
      return;
    }
    kick();
  }

  function kick() {
    if (closing) return;
    clearTimeout(waiting);
    try {
      startQueued();
    } catch (error) {
      options.log({ code: toAppError(error).code }, 'the queue could not be read; it is tried again');
      waiting = setTimeout(kick, TRY_AGAIN_MS).unref();
    }
  }

  function startQueued() {
    const busy = new Set([...active.values()].map(({ kind }) => LANES[kind]));
    let soonest = Infinity;
    for (const next of queuedRuns(db)) {
      if (unwritten.has(next.id)) continue;
      const lane = LANES[next.input.kind];
      if (busy.has(lane)) continue;
      if (next.notBefore !== null && next.notBefore > now()) {
        soonest = Math.min(soonest, next.notBefore);
        continue;
      }
      busy.add(lane);
      start(next);
    }
    if (soonest < Infinity) waiting = setTimeout(kick, Math.min(soonest - now(), LONGEST_TIMER_MS)).unref();
  }

  function start({ id: runId, jobId, input, total }: RunTableRow) {
    change(runId, { ...ended({ state: 'running', result: null }), startedAt: now() });
    announce(runId);
    const { dbFile, dataDir } = options;
    const task = { runId, jobId, input, settings: options.settings(), dbFile, dataDir };
    const hand = options.crew.give(task, LANES[input.kind] === 'compute', (message) => {
      if (message.type === 'sift') return keep(() => void enqueue(jobId, { kind: 'sift' }));
      Object.assign(state, { done: message.done, total: message.total, phase: message.phase });
      state.marks = [...state.marks.slice(-20), [now(), message.done]];
      announce(runId);
    });
    const state: Active = { hand, kind: input.kind, stopAs: null, done: 0, total, phase: null, marks: [[now(), 0]] };
    active.set(runId, state);
    void hand.ended.then((message) => {
      active.delete(runId);
      if (closing) return;
      change(runId, { done: state.done, total: state.total });
      if (message?.type === 'done') end(runId, { state: 'done', result: message.result });
      else if (message?.type === 'later')
        end(runId, { state: message.at === null ? 'paused' : 'queued', result: message.result, notBefore: message.at });
      else if (message?.type === 'failed') {
        options.log({ runId, kind: input.kind, code: message.code, stack: message.stack }, 'run failed');
        end(runId, { state: 'failed', result: { code: 'failed', error: message.code, details: message.details } });
      } else if (state.stopAs) end(runId, { state: state.stopAs });
      else end(runId, { state: 'failed', result: { code: 'failed', error: 'internal', details: {} } });
      if (CHANGES_JOB.includes(input.kind)) keep(() => void enqueue(jobId, { kind: 'sift' }));
      if (jobId > 0) options.emit({ type: 'job', jobId });
      if ('searchId' in input) options.emit({ type: 'search', searchId: input.searchId });
      kick();
    });
  }

  function end(id: number, how: RunEnd) {
    change(id, ended(how));
    announce(id);
  }

  function ended({ state, result = null, notBefore = null }: RunEnd): RunChange {
    const endedAt = state === 'done' || state === 'failed' || state === 'cancelled' ? now() : null;
    return { state, result, endedAt, notBefore, seenAt: null };
  }

  function change(id: number, values: RunChange) {
    unwritten.set(id, { ...unwritten.get(id), ...values });
    keep(() => setRun(db, id, values));
    if (owed.length === 0) unwritten.delete(id);
  }

  function announce(id: number) {
    try {
      const run = view(id);
      if (run) options.emit({ type: 'run', run });
    } catch (error) {
      options.log({ runId: id, code: toAppError(error).code }, 'a run could not be read');
    }
  }

  function view(id: number): Run | undefined {
    const row = runRow(db, id);
    return row && toRun(row);
  }

  function toRun(row: RunTableRow): Run {
    const live = active.get(row.id);
    return {
      ...row,
      ...unwritten.get(row.id),
      jobName: jobRow(db, row.jobId)?.name ?? '',
      done: live?.done ?? row.done,
      total: live?.total ?? row.total,
      phase: live?.phase ?? null,
      rate: live ? rateOf(live.marks) : 0,
    };
  }

  function act(id: number, action: RunAction): Run {
    const run = view(id);
    if (!run) throw new AppError('not-found', { what: 'run' });
    if (!FITS[action].includes(run.state)) throw new AppError('not-running', { state: run.state });
    const live = active.get(id);
    if (live) {
      live.stopAs = WANTED[action];
      // Sifting keeps nothing until its end, and matching does not look up from its work.
      if (live.kind === 'sift') void live.hand.kill();
      else live.hand.stop();
    } else {
      // What a person wants is written or refused now, and behind what is owed.
      payOwed();
      setRun(db, id, ended({ state: WANTED[action] }));
      announce(id);
      kick();
    }
    return view(id)!;
  }

  return {
    enqueue,
    act,
    view,
    listed: () => listedRuns(db).map(toRun),
    /** Takes up what a stopped server left: runs that were running are queued again, outcomes that are gone are made anew. */
    resume() {
      keep(() => {
        requeueRunning(db);
        for (const jobId of jobsToSift(db)) enqueue(jobId, { kind: 'sift' });
      });
      kick();
    },
    busy: () => active.size,
    async close() {
      closing = true;
      clearInterval(owing);
      await Promise.all([...[...active.values()].map(({ hand }) => hand.kill()), options.crew.dismiss()]);
    },
  };
}

function rateOf(marks: [number, number][]): number {
  const [first, last] = [marks[0]!, marks.at(-1)!];
  const seconds = (last[0] - first[0]) / 1000;
  return seconds > 0 ? Math.max(0, (last[1] - first[1]) / seconds) : 0;
}
