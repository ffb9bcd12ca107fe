import { EventEmitter } from 'node:events';
import type { Worker } from 'node:worker_threads';
import { createCrew } from './crew';
import type { WorkerTask } from './worker';

class Thread extends EventEmitter {
  tasks: unknown[] = [];
  ended = false;
  postMessage(task: unknown) {
    this.tasks.push(task);
  }
  async terminate() {
    if (this.ended) return;
    this.ended = true;
    this.emit('exit', 1);
  }
}

function crewOf() {
  const threads: Thread[] = [];
  const crew = createCrew(() => {
    const thread = new Thread();
    threads.push(thread);
    return thread as unknown as Worker;
  });
  return { crew, threads };
}
const task = { input: { kind: 'sift' } } as WorkerTask;
const ended = (rows: number) => ({ code: 'rows-read', rows });
const nothing = () => undefined;

test('a thread that keeps what it computed is given the next such task; another kind gets its own', async () => {
  const { crew, threads } = crewOf();
  const first = crew.give(task, true, nothing);
  const beside = crew.give(task, false, nothing);
  expect(threads).toHaveLength(2);
  threads[0]!.emit('message', { type: 'done', result: ended(1) });
  threads[1]!.emit('message', { type: 'done', result: ended(2) });
  expect(await Promise.all([first.ended, beside.ended])).toEqual([
    { type: 'done', result: ended(1) },
    { type: 'done', result: ended(2) },
  ]);
  expect(threads.map(({ ended }) => ended)).toEqual([false, true]);
  crew.give(task, true, nothing);
  expect(threads).toHaveLength(2);
  expect(threads[0]!.tasks).toEqual([task, task]);
  await crew.dismiss();
});

test('two tasks that keep get two threads, and only one of these is kept', async () => {
  const { crew, threads } = crewOf();
  const hands = [crew.give(task, true, nothing), crew.give(task, true, nothing)];
  for (const thread of threads) thread.emit('message', { type: 'done', result: ended(0) });
  await Promise.all(hands.map(({ ended }) => ended));
  expect(threads.map(({ ended }) => ended)).toEqual([false, true]);
  await crew.dismiss();
  expect(threads[0]!.ended).toBe(true);
});

test('progress is told, and does not end the task', () => {
  const { crew, threads } = crewOf();
  const told: object[] = [];
  crew.give(task, false, (message) => told.push(message));
  threads[0]!.emit('message', { type: 'progress', done: 1, total: 2, phase: null });
  threads[0]!.emit('message', { type: 'sift' });
  expect(told).toEqual([{ type: 'progress', done: 1, total: 2, phase: null }, { type: 'sift' }]);
  expect(threads[0]!.ended).toBe(false);
});

test('a thread that breaks ends in words without what it worked on; one that is killed ends in nothing', async () => {
  const { crew, threads } = crewOf();
  const broken = crew.give(task, true, nothing);
  threads[0]!.emit('error', new RangeError('maren@tidewell.example is out of range'));
  const end = await broken.ended;
  expect(end).toMatchObject({ type: 'failed', code: 'internal', stack: 'RangeError' });
  expect(JSON.stringify(end)).not.toContain('tidewell');
  const killed = crew.give(task, true, nothing);
  await killed.kill();
  expect(await killed.ended).toBeNull();
});

test('a stop is passed on; a kept thread that dies by itself is not used again', async () => {
  const { crew, threads } = crewOf();
  const hand = crew.give(task, true, nothing);
  hand.stop();
  expect(threads[0]!.tasks.at(-1)).toBe('stop');
  threads[0]!.emit('message', { type: 'stopped' });
  expect(await hand.ended).toEqual({ type: 'stopped' });
  await threads[0]!.terminate();
  crew.give(task, true, nothing);
  expect(threads).toHaveLength(2);
});
