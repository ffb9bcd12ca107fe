import Database from 'better-sqlite3';
import { settings, type ServerEvent } from '@sieve/contract';
import { testDb, testJob } from '../testing/fixtures';
import type { Crew } from '../threads/crew';
import { createQueue } from './queue';
import type { EndMessage, ProgressMessage, WorkerTask } from '../threads/worker';

const soon = () => new Promise((done) => setImmediate(done));

/** A crew whose tasks end when the test says so. */
function heldCrew() {
  const tasks: {
    task: WorkerTask;
    tell: (message: ProgressMessage) => void;
    end: (message: EndMessage | null) => Promise<void>;
    said: string[];
  }[] = [];
  const crew: Crew = {
    give(task, _keeps, tell) {
      const said: string[] = [];
      let resolve: (end: EndMessage | null) => void = () => undefined;
      const ended = new Promise<EndMessage | null>((done) => (resolve = done));
      const end = async (message: EndMessage | null) => {
        resolve(message);
        await soon();
        await soon();
      };
      tasks.push({ task, tell, end, said });
      return {
        ended,
        stop: () => void said.push('stop'),
        kill: async () => {
          said.push('kill');
          resolve(null);
        },
      };
    },
    dismiss: async () => undefined,
  };
  return { crew, tasks };
}

const { db, dir } = testDb();
let clock = 1_000_000;

function start() {
  db.$client.exec('DELETE FROM runs');
  const { crew, tasks } = heldCrew();
  const events: ServerEvent[] = [];
  const queue = createQueue({
    db,
    dbFile: '',
    dataDir: dir,
    crew,
    settings: () => settings.parse({}),
    emit: (event) => void events.push(event),
    log: () => undefined,
    now: () => clock,
  });
  return { queue, tasks, events };
}
const job = testJob(db);
const bringIn = { kind: 'bring-in', sourceId: 1, rows: 10 } as const;
const pull = { kind: 'pull', pullId: 1, searchId: 1 } as const;
const ask = (step: string) => ({ kind: 'ask', step }) as const;
const read = { code: 'rows-read', rows: 10 } as const;
const kinds = (tasks: ReturnType<typeof heldCrew>['tasks']) => tasks.map(({ task }) => task.input.kind);

test('one run at a time in each lane; what brought rows in is followed by a sifting, several wait as one', async () => {
  const { queue, tasks } = start();
  const first = queue.enqueue(job, bringIn);
  queue.enqueue(job, bringIn);
  queue.enqueue(job, ask('append-email'));
  queue.enqueue(job, pull);
  await soon();
  expect(kinds(tasks)).toEqual(['bring-in', 'ask', 'pull']);
  tasks[0]!.tell({ type: 'progress', done: 5, total: 10, phase: 'tidying' });
  clock += 1000;
  tasks[0]!.tell({ type: 'progress', done: 10, total: 10, phase: null });
  expect(queue.view(first)).toMatchObject({ state: 'running', done: 10, total: 10, rate: 10 });
  await tasks[0]!.end({ type: 'done', result: read });
  expect(queue.view(first)).toMatchObject({ state: 'done', result: read, done: 10 });
  await tasks[1]!.end({ type: 'done', result: read });
  tasks[2]!.tell({ type: 'sift' });
  await tasks[3]!.end({ type: 'done', result: read });
  expect(kinds(tasks)).toEqual(['bring-in', 'ask', 'pull', 'bring-in', 'sift']);
});

test('a run is paused and goes on; a sifting that is stopped ends at once', async () => {
  const { queue, tasks } = start();
  const id = queue.enqueue(job, ask('verify'));
  await soon();
  queue.act(id, 'pause');
  expect(tasks[0]!.said).toEqual(['stop']);
  await tasks[0]!.end({ type: 'stopped' });
  expect(queue.view(id)!.state).toBe('paused');
  expect(() => queue.act(id, 'pause')).toThrow('paused');
  queue.act(id, 'resume');
  expect(kinds(tasks).filter((kind) => kind === 'ask')).toHaveLength(2);
  const sift = queue.listed().find(({ input }) => input.kind === 'sift')!;
  queue.act(sift.id, 'cancel');
  expect(tasks.find(({ task }) => task.input.kind === 'sift')!.said).toEqual(['kill']);
  await soon();
  expect(queue.view(sift.id)!.state).toBe('cancelled');
});

test('a run that dies or fails says so, and the next one starts', async () => {
  const { queue, tasks } = start();
  const [died, failed] = [
    queue.enqueue(job, { kind: 'export', exportId: 1 }),
    queue.enqueue(job, { kind: 'export', exportId: 2 }),
  ];
  await soon();
  await tasks[0]!.end(null);
  await tasks[1]!.end({ type: 'failed', code: 'disk-full', details: {}, stack: '' });
  expect(queue.view(died)).toMatchObject({ state: 'failed', result: { code: 'failed', error: 'internal' } });
  expect(queue.view(failed)).toMatchObject({ state: 'failed', result: { code: 'failed', error: 'disk-full' } });
});

test('a run that goes on later waits for its time, also over a restart; without a time it is paused', async () => {
  const { queue, tasks } = start();
  const id = queue.enqueue(job, pull);
  await soon();
  await tasks[0]!.end({
    type: 'later',
    result: { code: 'out-of-hours', came: 20, promised: 50 },
    at: clock + 3_600_000,
  });
  expect(queue.view(id)).toMatchObject({ state: 'queued', notBefore: clock + 3_600_000, result: { came: 20 } });
  queue.resume();
  expect(kinds(tasks).filter((kind) => kind === 'pull')).toHaveLength(1);
  clock += 3_700_000;
  queue.resume();
  expect(kinds(tasks).filter((kind) => kind === 'pull')).toHaveLength(2);
  await tasks
    .findLast(({ task }) => task.input.kind === 'pull')!
    .end({ type: 'later', result: { code: 'enough-for-a-run', rows: 20 }, at: null });
  expect(queue.view(id)).toMatchObject({ state: 'paused', result: { rows: 20 } });
});

test('what a crash left running is taken up again', () => {
  const { queue, tasks } = start();
  db.$client
    .prepare(`INSERT INTO runs (job_id, input, state, created_at) VALUES (?, ?, 'running', 0)`)
    .run(job, JSON.stringify(ask('append-email')));
  queue.resume();
  expect(kinds(tasks)).toEqual(['ask']);
});

test('a run whose end the database refuses is shown as it ended, and is written once that is possible', async () => {
  const { queue, tasks } = start();
  const id = queue.enqueue(job, ask('verify'));
  await soon();
  const other = new Database(db.$client.name);
  other.exec('BEGIN IMMEDIATE');
  await tasks[0]!.end({ type: 'done', result: read });
  const stored = () => db.$client.prepare('SELECT state FROM runs WHERE id = ?').pluck().get(id);
  expect([queue.view(id)!.state, stored()]).toEqual(['done', 'running']);
  expect(() => queue.act(id, 'pause')).toThrow('done');
  other.close();
  while (stored() !== 'done') await new Promise((done) => setTimeout(done, 100));
  expect(queue.listed().map(({ input }) => input.kind)).toEqual(['sift', 'ask']);
});

test('what a person wants of a run comes behind what is owed of it, and is refused while that cannot be written', async () => {
  const { queue, tasks } = start();
  const id = queue.enqueue(job, ask('verify'));
  await soon();
  const other = new Database(db.$client.name);
  other.exec('BEGIN IMMEDIATE');
  await tasks[0]!.end({ type: 'failed', code: 'disk-full', details: {}, stack: '' });
  expect(() => queue.act(id, 'resume')).toThrow('locked');
  expect(queue.view(id)!.state).toBe('failed');
  other.close();
  queue.act(id, 'resume');
  await new Promise((done) => setTimeout(done, 2500));
  expect(queue.view(id)!.state).toBe('running');
});
