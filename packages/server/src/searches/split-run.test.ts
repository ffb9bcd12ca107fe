import { fits, type Found, type Search } from '@sieve/core';
import type { Directory } from '../outside/directory/port';
import { addRun } from '../runs/store';
import { testContext, testDb, testJob } from '../testing/fixtures';
import { changeSearch } from './commands';
import { runSplit } from './split-run';
import { addSearch, batchesOf, searchView, theSearch } from './store';

const { db } = testDb();
const jobId = testJob(db);

/** A directory that counts no values, so that it has to be asked hundreds of times; it can be stopped at any of them. */
const rows = Array.from({ length: 3600 }, (_, i): Found => ({
  growth: (i * 7) % 211,
  teamgrowth: (i * 13) % 97,
  employees: 1 + ((i * 31) % 900),
}));
function slowDirectory(stopAfter: number) {
  const stop = new AbortController();
  const asked: string[] = [];
  function say(question: object) {
    asked.push(JSON.stringify(question));
    if (asked.length > stopAfter) stop.abort(new Error('stopped'));
    stop.signal.throwIfAborted();
  }
  const directory: Directory = {
    name: 'Plan',
    pageSize: 25,
    pages: { people: 100, companies: 2, postings: 40 },
    count: async (search: Search) => {
      say(search);
      return rows.filter((row) => fits(search, row)).length;
    },
    find: async () => [],
    named: async () => ({ total: 0, people: [] }),
    facet: async (search, field) => {
      say([field, search]);
      return null;
    },
    page: async () => ({ total: 0, pages: 0, rows: [] }),
  };
  return { directory, asked, signal: stop.signal };
}
function newSplit() {
  const search = { about: 'companies' as const, conditions: [] };
  const searchId = addSearch(db, { name: 'S', folder: '', jobId, search, perCompany: 0 }, 0);
  const input = { kind: 'split', searchId, version: theSearch(db, searchId).version } as const;
  const runId = addRun(db, jobId, input, 0);
  return { searchId, runId, context: (more: object) => ({ ...testContext<'split'>(db, jobId, input, more), runId }) };
}

test('a split of hundreds of questions that is stopped again and again ends, and asks nothing twice', async () => {
  const { searchId, runId, context } = newSplit();
  expect(searchView(db, searchId)!.splitting).toBe(runId);
  const answered: string[] = [];
  const told: number[] = [];
  for (let stops = 0; ; stops++) {
    const { directory, asked, signal } = slowDirectory(40);
    const progress = (done: number) => void told.push(done);
    const result = await runSplit(context({ signal, progress }), directory).catch(() => null);
    // Of what was asked at once when it was stopped nothing was answered.
    answered.push(...asked.slice(0, 40));
    if (!result) continue;
    expect(stops).toBeGreaterThan(5);
    expect(result).toMatchObject({ code: 'split', batches: batchesOf(db, searchId).length });
    break;
  }
  expect(answered.length).toBeGreaterThan(300);
  expect(new Set(answered).size).toBe(answered.length);
  expect(told.at(-1)).toBe(answered.length);
  expect(batchesOf(db, searchId).reduce((sum, { count }) => sum + count, 0)).toBe(3600);
  expect(db.$client.prepare('SELECT count(*) FROM split_answers').pluck().get()).toBe(0);
});

test('a search that was changed meanwhile keeps what it has, and it is said', async () => {
  const { searchId, context } = newSplit();
  const { directory } = slowDirectory(Infinity);
  const meanwhile: Directory = {
    ...directory,
    count: async (search, signal) => {
      if (searchView(db, searchId)!.name === 'S') changeSearch(db, searchId, { name: 'Renamed' }, 0);
      return directory.count(search, signal);
    },
  };
  await expect(runSplit(context({}), meanwhile)).rejects.toMatchObject({ code: 'changed-meanwhile' });
  expect(batchesOf(db, searchId)).toEqual([]);
});
