import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { settings, type ServerEvent } from '@sieve/contract';
import { closeDb, openDb } from '../db/open';
import { createJob } from '../jobs/store';
import type { Crew } from '../threads/crew';
import { createQueue } from './queue';
import type { EndMessage, ProgressMessage, WorkerTask } from '../threads/worker';

/** A crew whose tasks end when the test says so. */
function heldCrew() {
  const tasks: {
    task: Extract<WorkerTask, { type: 'run' }>;
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
        await new Promise((done) => setImmediate(done));
      };
      tasks.push({ task: task as Extract<WorkerTask, { type: 'run' }>, tell, end, said });
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

const dir = mkdtempSync(join(tmpdir(), 'sieve-queue-'));
const db = openDb(join(dir, 'sieve.db'), join(__dirname, '../../migrations'));
let clock = 1_000_000;
afterAll(() => {
  closeDb(db);
  rmSync(dir, { recursive: true, force: true });
});

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
const job = createJob(db, { name: 'Q', folder: '', note: '', targetValid: 0, budgetCents: 0 }, 0);
const kinds = (tasks: ReturnType<typeof heldCrew>['tasks']) => tasks.map(({ task }) => task.kind);

test('one run at a time in each lane; what brought rows in is followed by a sifting, several wait as one', async () => {
  const { queue, tasks } = start();
  const first = queue.enqueue(job, 'intake');
  queue.enqueue(job, 'intake');
  queue.enqueue(job, 'append');
  queue.enqueue(job, 'pull');
  expect(kinds(tasks)).toEqual(['intake', 'append', 'pull']);
  tasks[0]!.tell({ type: 'progress', done: 5, total: 10 });
  clock += 1000;
  tasks[0]!.tell({ type: 'progress', done: 10, total: 10 });
  expect(queue.view(first)).toMatchObject({ state: 'running', done: 10, total: 10, rate: 10 });
  await tasks[0]!.end({ type: 'done', message: '10 rows read' });
  expect(queue.view(first)).toMatchObject({ state: 'done', message: '10 rows read', done: 10 });
  await tasks[1]!.end({ type: 'done', message: '' });
  tasks[2]!.tell({ type: 'sift' });
  await tasks[3]!.end({ type: 'done', message: '' });
  expect(kinds(tasks)).toEqual(['intake', 'append', 'pull', 'intake', 'sift']);
});

test('a run is paused and goes on; a sifting that is stopped ends at once', async () => {
  const { queue, tasks } = start();
  const id = queue.enqueue(job, 'verify');
  queue.act(id, 'pause');
  expect(tasks[0]!.said).toEqual(['stop']);
  await tasks[0]!.end({ type: 'stopped' });
  expect(queue.view(id)!.state).toBe('paused');
  expect(() => queue.act(id, 'pause')).toThrow('paused');
  queue.act(id, 'resume');
  expect(kinds(tasks).filter((kind) => kind === 'verify')).toHaveLength(2);
  const sift = queue.recent().find(({ kind }) => kind === 'sift')!;
  queue.act(sift.id, 'cancel');
  expect(tasks.find(({ task }) => task.kind === 'sift')!.said).toEqual(['kill']);
  await new Promise((done) => setImmediate(done));
  expect(queue.view(sift.id)!.state).toBe('cancelled');
});

test('a run that dies or fails says so, and the next one starts', async () => {
  const { queue, tasks } = start();
  const [died, failed] = [queue.enqueue(job, 'export'), queue.enqueue(job, 'export')];
  await tasks[0]!.end(null);
  await tasks[1]!.end({ type: 'failed', code: 'disk-full', details: {}, words: 'The disk is full.', stack: '' });
  expect(queue.view(died)).toMatchObject({ state: 'failed', message: expect.stringContaining('kept') as string });
  expect(queue.view(failed)).toMatchObject({ state: 'failed', message: 'The disk is full.' });
});

test('a run that goes on later waits for its time, also over a restart; without a time it is paused', async () => {
  const { queue, tasks } = start();
  const id = queue.enqueue(job, 'pull');
  await tasks[0]!.end({ type: 'later', message: '20 of 50', at: clock + 3_600_000 });
  expect(queue.view(id)).toMatchObject({ state: 'queued', notBefore: clock + 3_600_000, message: '20 of 50' });
  queue.resume();
  expect(kinds(tasks).filter((kind) => kind === 'pull')).toHaveLength(1);
  clock += 3_700_000;
  queue.resume();
  expect(kinds(tasks).filter((kind) => kind === 'pull')).toHaveLength(2);
  await tasks.findLast(({ task }) => task.kind === 'pull')!.end({ type: 'later', message: 'enough', at: null });
  expect(queue.view(id)).toMatchObject({ state: 'paused', message: 'enough' });
});

test('what a crash left running is taken up again', () => {
  const { queue, tasks } = start();
  db.$client
    .prepare(`INSERT INTO runs (job_id, kind, input, state, created_at) VALUES (?, 'append', '{}', 'running', 0)`)
    .run(job);
  queue.resume();
  expect(kinds(tasks)).toEqual(['append']);
});
