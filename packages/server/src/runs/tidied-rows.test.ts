import { EventEmitter } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Worker } from 'node:worker_threads';
import type { DecisionBody } from '@sieve/core';
import { closeDb, openDb } from '../db/open';
import { sendPart, tidiedRows, type Source } from './tidied-rows';
import type { WorkerTask } from './worker';

const ROWS = 21_000;
const dir = mkdtempSync(join(tmpdir(), 'sieve-tidy-'));
const db = openDb(join(dir, 'sieve.db'), join(__dirname, '../../migrations'));
const sources: Source[] = [1, 2].map((id) => ({
  id,
  name: `list ${id}`,
  columns: [
    { name: 'Name', target: 'fullName' },
    { name: 'Tel', target: 'phone' },
  ],
}));
beforeAll(() => {
  const insert = db.$client.prepare('INSERT INTO records (source_id, line, cells) VALUES (?, ?, ?)');
  db.$client.transaction(() => {
    for (let i = 0; i < ROWS; i++)
      insert.run(1 + (i % 2), i, JSON.stringify([`MAREN ${i} OAKHILL`, `0113 496 0${100 + (i % 900)}`]));
  })();
});
afterAll(() => {
  closeDb(db);
  rmSync(dir, { recursive: true, force: true });
});

/** A second thread as far as this one can tell. */
class Beside extends EventEmitter {
  parts = 0;
  ended = false;
  constructor(private readonly broken: boolean) {
    super();
    this.on('error', () => undefined);
  }
  postMessage(task: Extract<WorkerTask, { type: 'tidy' }>) {
    this.parts++;
    setImmediate(() =>
      this.broken
        ? this.emit('error', new Error('out of memory'))
        : this.emit('message', { type: 'tidied', rows: sendPart(db, task.part) }),
    );
  }
  ref = () => this;
  unref = () => this;
  async terminate() {
    this.ended = true;
  }
}
const tidy = (
  phoneCountry: string,
  thread?: Beside,
  onTidied: () => void = () => undefined,
  ...bodies: DecisionBody[]
) => {
  const decisions = bodies.map((body, id) => ({ id, body }));
  const helper = thread ? () => thread as unknown as Worker : null;
  return tidiedRows(db, { sources, phoneCountry, decisions }, onTidied, helper);
};

test('two threads tidy what one would, each row once and in the order of the sources and their ids', async () => {
  const alone = await tidy('GB');
  await tidy('IE');
  const thread = new Beside(false);
  const together = await tidy('GB', thread);
  expect(thread.parts).toBeGreaterThan(2);
  // It is kept for the next time, and hears nothing of this one any more.
  expect([thread.ended, thread.listenerCount('message'), thread.listenerCount('error')]).toEqual([false, 0, 1]);
  expect(together).toEqual(alone);
  expect(together).toHaveLength(ROWS);
  expect(together[0]!.person).toMatchObject({ firstName: 'Maren', phone: '+441134960100' });
});

test('a second thread that breaks fails the run; nothing half tidied is kept', async () => {
  await expect(tidy('FR', new Beside(true))).rejects.toThrow('out of memory');
  expect(await tidy('FR')).toHaveLength(ROWS);
});

test('a run that is stopped ends the second thread with the work it still has', async () => {
  const thread = new Beside(false);
  const stopped = tidy('DE', thread, () => {
    throw new Error('stopped');
  });
  await expect(stopped).rejects.toThrow('stopped');
  expect(thread.ended).toBe(true);
  expect(await tidy('DE')).toHaveLength(ROWS);
});

test('what was refused or written is in its rows, and in no other', async () => {
  const plain = await tidy('GB');
  const edit: DecisionBody = { kind: 'edit', recordIds: [2], field: 'title', value: 'Owner' };
  const refuse: DecisionBody = { kind: 'refuse', recordId: 4, field: 'firstName' };
  const edited = await tidy('GB', undefined, undefined, edit, refuse);
  const different = edited.filter((row, i) => row !== plain[i]);
  expect(different.map(({ recordId, person }) => [recordId, person.firstName, person.title])).toEqual([
    [2, 'Maren', 'Owner'],
    [4, 'MAREN 3 OAKHILL', ''],
  ]);
  expect(await tidy('GB', undefined, undefined, edit, refuse)).toBe(edited);
  expect(await tidy('GB')).toBe(plain);
  const like: DecisionBody = { kind: 'refuse-like', field: 'firstName', was: 'MAREN 2 OAKHILL', is: 'Maren' };
  const [first, second] = await tidy('GB', undefined, undefined, like);
  expect([first!.person.firstName, second!.person.firstName]).toEqual(['Maren', 'MAREN 2 OAKHILL']);
});
