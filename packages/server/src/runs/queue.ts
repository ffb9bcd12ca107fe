import type { Run, RunKind, RunState, ServerEvent, Settings } from '@sieve/contract';
import { and, asc, desc, eq, type SQL } from 'drizzle-orm';
import type { Db } from '../db/open';
import { jobsToSift } from '../sieve/outcomes';
import { jobs, runs } from '../db/schema';
import { AppError } from '../errors';
import type { Crew, Hand } from '../threads/crew';

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

/** Three lanes, one run at a time in each: what computes, what asks finders and mail servers, what pulls from a directory. */
/** Timers hold no more than about 24 days. */
const LONGEST_TIMER_MS = 86_400_000;

const laneOf = (kind: RunKind) =>
  kind === 'pull' ? 'pull' : kind === 'append' || kind === 'verify' ? 'ask' : 'compute';

interface Active {
  hand: Hand;
  stopAs: RunState | null;
  done: number;
  total: number;
  message: string;
  marks: [at: number, done: number][];
}

/** A durable queue: runs are rows, work happens in worker threads, and what a crash left running is started again. */
export function createQueue(options: QueueOptions) {
  const { db, now } = options;
  const active = new Map<number, Active>();
  let closing = false;
  let waiting: NodeJS.Timeout | undefined;

  function enqueue(jobId: number, kind: RunKind, input: Record<string, number> = {}): number {
    if (kind === 'sift') {
      const waiting = db
        .select({ id: runs.id })
        .from(runs)
        .where(and(eq(runs.jobId, jobId), eq(runs.kind, 'sift'), eq(runs.state, 'queued')))
        .get();
      if (waiting) return waiting.id;
    }
    const { id } = db
      .insert(runs)
      .values({ jobId, kind, input, state: 'queued', createdAt: now() })
      .returning({ id: runs.id })
      .get();
    announce(id);
    kick();
    return id;
  }

  function kick() {
    if (closing) return;
    const running = new Set([...active.keys()].map((id) => laneOf(row(id)!.kind as RunKind)));
    let soonest = Infinity;
    for (const next of db.select().from(runs).where(eq(runs.state, 'queued')).orderBy(asc(runs.id)).all()) {
      const lane = laneOf(next.kind as RunKind);
      if (running.has(lane)) continue;
      if (next.notBefore !== null && next.notBefore > now()) {
        soonest = Math.min(soonest, next.notBefore);
        continue;
      }
      running.add(lane);
      start(next);
    }
    clearTimeout(waiting);
    if (soonest < Infinity) waiting = setTimeout(kick, Math.min(soonest - now(), LONGEST_TIMER_MS)).unref();
  }

  function start(run: typeof runs.$inferSelect) {
    setState(run.id, 'running', '');
    const runId = run.id;
    const kind = run.kind as RunKind;
    const task = {
      type: 'run' as const,
      runId,
      jobId: run.jobId,
      kind,
      input: run.input,
      settings: options.settings(),
      dbFile: options.dbFile,
      dataDir: options.dataDir,
    };
    const hand = options.crew.give(task, laneOf(kind) === 'compute', (message) => {
      if (message.type === 'sift') return void enqueue(run.jobId, 'sift');
      Object.assign(state, { done: message.done, total: message.total, message: message.message ?? state.message });
      state.marks = [...state.marks.slice(-20), [now(), message.done]];
      announce(runId);
    });
    const state: Active = { hand, stopAs: null, done: 0, total: run.total, message: '', marks: [[now(), 0]] };
    active.set(runId, state);
    void hand.ended.then((end) => {
      active.delete(runId);
      if (closing) return;
      if (end?.type === 'failed') options.log({ runId, kind, code: end.code, stack: end.stack }, 'run failed');
      db.update(runs).set({ done: state.done, total: state.total }).where(eq(runs.id, runId)).run();
      if (end?.type === 'done') setState(runId, 'done', end.message);
      else if (end?.type === 'later') setState(runId, end.at === null ? 'paused' : 'queued', end.message, end.at);
      else if (end?.type === 'failed') setState(runId, 'failed', end.words);
      else if (state.stopAs) setState(runId, state.stopAs, '');
      else setState(runId, 'failed', new AppError('internal').message);
      if (['intake', 'append', 'verify', 'pull'].includes(kind)) enqueue(run.jobId, 'sift');
      options.emit({ type: 'job', jobId: run.jobId });
      kick();
    });
  }

  const row = (id: number) => db.select().from(runs).where(eq(runs.id, id)).get();

  function setState(id: number, state: RunState, message: string, notBefore: number | null = null) {
    const endedAt = state === 'done' || state === 'failed' || state === 'cancelled' ? now() : null;
    db.update(runs).set({ state, message, endedAt, notBefore }).where(eq(runs.id, id)).run();
    announce(id);
  }

  function announce(id: number) {
    const run = view(id);
    if (run) options.emit({ type: 'run', run });
  }

  function view(id: number): Run | undefined {
    return views(eq(runs.id, id))[0];
  }

  function views(where: SQL | undefined, limit = 50): Run[] {
    return db
      .select({ run: runs, jobName: jobs.name })
      .from(runs)
      .innerJoin(jobs, eq(jobs.id, runs.jobId))
      .where(where)
      .orderBy(desc(runs.id))
      .limit(limit)
      .all()
      .map(({ run, jobName }) => {
        const live = active.get(run.id);
        return {
          ...run,
          kind: run.kind as RunKind,
          state: run.state as RunState,
          jobName,
          ...(live && { done: live.done, total: live.total, message: live.message }),
          rate: live ? rateOf(live.marks) : 0,
        };
      });
  }

  function act(id: number, action: 'pause' | 'resume' | 'cancel'): Run {
    const run = row(id);
    if (!run) throw new AppError('not-found', { what: 'run' });
    const live = active.get(id);
    const wanted = ({ pause: 'paused', cancel: 'cancelled', resume: 'queued' } as const)[action];
    const fits =
      action === 'resume'
        ? ['paused', 'failed', 'cancelled']
        : action === 'pause'
          ? ['queued', 'running']
          : ['queued', 'running', 'paused'];
    if (!fits.includes(run.state)) throw new AppError('not-running', { state: run.state });
    if (live) {
      live.stopAs = wanted;
      // Sifting keeps nothing until its end, and matching does not look up from its work.
      if (run.kind === 'sift') void live.hand.kill();
      else live.hand.stop();
    } else {
      setState(id, wanted, '');
      kick();
    }
    return view(id)!;
  }

  return {
    enqueue,
    act,
    view,
    recent: () => views(undefined),
    /** Takes up what a stopped server left: runs that were running are queued again, outcomes that are gone are made anew. */
    resume() {
      db.update(runs).set({ state: 'queued' }).where(eq(runs.state, 'running')).run();
      for (const jobId of jobsToSift(db)) enqueue(jobId, 'sift');
      kick();
    },
    busy: () => active.size,
    async close() {
      closing = true;
      await Promise.all([...[...active.values()].map(({ hand }) => hand.kill()), options.crew.dismiss()]);
    },
  };
}

function rateOf(marks: [number, number][]): number {
  const [first, last] = [marks[0]!, marks.at(-1)!];
  const seconds = (last[0] - first[0]) / 1000;
  return seconds > 0 ? (last[1] - first[1]) / seconds : 0;
}
