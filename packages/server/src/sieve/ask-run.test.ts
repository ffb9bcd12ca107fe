import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { AnswerOf, Column, Question } from '@sieve/core';
import { settings } from '@sieve/contract';
import { closeDb, openDb } from '../db/open';
import { createJob, spentCents } from '../jobs/store';
import { addSource } from '../sources/store';
import { decisions } from '../db/schema';
import { FinderDown } from '../outside/finder/finder';
import { askHandler } from './ask-run';

const dir = mkdtempSync(join(tmpdir(), 'sieve-ask-'));
const db = openDb(join(dir, 'sieve.db'), join(__dirname, '../../migrations'));
afterAll(() => {
  closeDb(db);
  rmSync(dir, { recursive: true, force: true });
});

const finder = {
  id: 'lantern',
  name: 'Lantern',
  url: 'http://127.0.0.1:1',
  key: '',
  priceCents: 15,
  perSecond: 100,
  simulated: true,
};
const columns: Column[] = [
  { name: 'Name', target: 'fullName' },
  { name: 'Web', target: 'website' },
];

/** A job of people at firms of their own, whom only the finder knows. */
function jobOf(people: number, budgetCents: number): number {
  const jobId = createJob(db, { name: 'Ask', folder: '', note: '', targetValid: 0, budgetCents }, 0);
  const format = { kind: 'delimited' as const, encoding: 'utf-8', delimiter: ',', sheet: '', headerRow: 0 };
  const sourceId = addSource(db, { jobId, name: 'list', format, columns, file: '', complete: true }, 0);
  const add = db.$client.prepare('INSERT INTO records (source_id, line, cells) VALUES (?, ?, ?)');
  for (let i = 0; i < people; i++)
    add.run(
      sourceId,
      i,
      JSON.stringify([`Maren Oakhill${'abcdefghij'[i % 10]}${i > 9 ? 'x' : ''}`, `firm${jobId}-${i}.example`]),
    );
  const say = (body: object) =>
    db
      .insert(decisions)
      .values({ jobId, at: 0, body: body as never })
      .run();
  say({ kind: 'configure', options: { kind: 'append', on: true, candidates: 1, finders: ['lantern'] } });
  return jobId;
}

/** A world in which no pattern is right and the finder always is; every answer takes a moment. */
function world() {
  const bought: string[] = [];
  const asked: Question[] = [];
  const ask = async (question: Question): Promise<AnswerOf[Question['kind']]> => {
    asked.push(question);
    await new Promise((resolve) => setTimeout(resolve, 1));
    if (question.kind === 'mail-host') return { state: 'hosts', hosts: ['mx.example'] };
    if (question.kind === 'catch-all') return { state: 'selective' };
    if (question.kind === 'mailbox')
      return { state: question.email.startsWith('found') ? 'accepted' : 'no-mailbox', code: 250 };
    if (question.kind === 'purchase') {
      bought.push(question.lookup);
      return { bought: true };
    }
    return { email: `found@${question.domain}`, lookup: question.domain, priceCents: 15 };
  };
  return { ask, bought, asked };
}

const context = (jobId: number, signal = new AbortController().signal) => ({
  db,
  runId: 1,
  jobId,
  input: {},
  settings: settings.parse({ finders: [finder] }),
  dataDir: dir,
  now: () => 1_000,
  progress: () => undefined,
  sift: () => undefined,
  signal,
});

test('the budget is never passed, however many domains are asked at once', async () => {
  const job = jobOf(12, 100);
  const { ask, bought } = world();
  const message = await askHandler('append', ask)(context(job));
  expect(bought).toHaveLength(6);
  expect(spentCents(db, job)).toBe(90);
  expect(message).toBe('6 of 12 settled · the budget is used up: raise it to go on');
});

test('a run that was stopped in the middle buys nothing twice', async () => {
  const job = jobOf(10, 10_000);
  const { ask, bought } = world();
  for (let stops = 0; stops < 30; stops++) {
    const stop = new AbortController();
    let left = 7;
    const until = async (question: Question) => {
      if (--left === 0) stop.abort(new Error('stopped'));
      return ask(question);
    };
    const ended = await askHandler(
      'append',
      until,
    )(context(job, stop.signal)).then(
      () => true,
      () => false,
    );
    if (ended) break;
  }
  expect(new Set(bought).size).toBe(bought.length);
  expect([bought.length, spentCents(db, job)]).toEqual([10, 150]);
});

test('what one job bought, another has for nothing', async () => {
  const job = jobOf(3, 1000);
  const first = world();
  await askHandler('append', first.ask)(context(job));
  const again = world();
  await askHandler('append', again.ask)(context(job));
  expect([first.bought.length, again.asked.length]).toEqual([3, 0]);
});

test('a finder that is down ends in words; what waits for it is asked the next time', async () => {
  const job = jobOf(4, 1000);
  const { ask, bought } = world();
  const down = async (question: Question) => {
    if (question.kind === 'finder') throw new FinderDown('lantern', 'it answered 500');
    return ask(question);
  };
  expect(await askHandler('append', down)(context(job))).toBe(
    '0 of 4 settled · lantern: it answered 500; what waits for it can be asked later',
  );
  expect(await askHandler('append', ask)(context(job))).toBe('4 of 4 settled');
  expect(bought).toHaveLength(4);
});
