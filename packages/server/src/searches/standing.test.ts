import type { Search } from '@sieve/core';
import type { RunInput, Standing } from '@sieve/contract';
import { pulls, runs, searches } from '../db/schema';
import type { Directory } from '../outside/directory/port';
import { addRun, setRun } from '../runs/store';
import { testContext, testDb, testJob } from '../testing/fixtures';
import { runSplit } from './split-run';
import { pullSplitSearches, stand, startDueSearches } from './standing';
import { startPulls } from './start-pulls';
import { addSearch, batchesOf, pullsOf as pullRows, searchRow, searchView, setPull, setSearchState } from './store';

const { db } = testDb();

const DAY = 86_400_000;
let clock = 0;
let perTeam = 600;
let down = false;

/** Teams of one size; a search for a team has its people, one without has all. */
const TEAMS = ['quality', 'production', 'sales', 'finance'];
const directory: Directory = {
  name: 'Plan',
  pageSize: 25,
  pages: { people: 100, companies: 40, postings: 40 },
  count: async ({ conditions }: Search) => {
    if (down) throw new Error('down');
    const wanted = TEAMS.filter((team) =>
      conditions.every((given) => {
        if (!('terms' in given) || given.field !== 'team') return true;
        return given.terms.some(({ text }) => text === team) !== given.not;
      }),
    );
    return wanted.length * perTeam;
  },
  find: async () => [],
  named: async () => ({ total: 0, people: [] }),
  facet: async () => new Map(TEAMS.map((team) => [team, perTeam])),
  page: async () => ({ total: 0, pages: 0, rows: [] }),
};
let lastRun = 0;
const parts = {
  db,
  directory: () => directory,
  now: () => clock,
  events: { emit: () => undefined } as never,
  queue: {
    enqueue: (jobId: number, input: RunInput) => (lastRun = addRun(db, jobId, input, clock)),
  } as never,
};
const jobId = testJob(db);

/** Does the split that is queued, as its run does. */
async function splitNow(searchId: number, runId = 0) {
  const input = { kind: 'split', searchId, version: 0, thenPull: true } as const;
  await runSplit({ ...testContext<'split'>(db, jobId, input), runId }, directory);
  if (runId > 0) setRun(db, runId, { state: 'done', endedAt: clock });
}

async function standing(how: Standing | null): Promise<number> {
  const search = { about: 'people' as const, conditions: [] };
  const id = addSearch(db, { name: 'S', folder: '', jobId, search, perCompany: 0 }, 0);
  await splitNow(id);
  if (how) setSearchState(db, id, stand(db, id, how, clock));
  return id;
}
const pullsOf = (searchId: number) => pullRows(db, searchId).toReversed();
function endPulls(searchId: number) {
  for (const { id, runId } of pullsOf(searchId)) {
    setPull(db, id, { endedAt: clock });
    setRun(db, runId, { state: 'done' });
  }
}
beforeEach(() => {
  db.delete(searches).run();
  db.delete(pulls).run();
  db.delete(runs).run();
  clock = 1000 * DAY;
  perTeam = 600;
  down = false;
});

test('every so many days, so many times; what was due several times meanwhile is asked once', async () => {
  const id = await standing({ kind: 'days', everyDays: 7, left: 2 });
  clock += 6 * DAY;
  expect(await startDueSearches(parts)).toBe(0);
  clock += 30 * DAY;
  expect(await startDueSearches(parts)).toBe(1);
  expect(searchRow(db, id)).toMatchObject({ standing: { left: 1 }, nextAt: clock + 7 * DAY });
  expect(pullsOf(id)).toMatchObject([{ standing: true, promised: 2400 }]);
  clock += 7 * DAY;
  expect(await startDueSearches(parts)).toBe(1);
  expect(searchRow(db, id)).toMatchObject({ standing: null, nextAt: null });
  clock += 70 * DAY;
  expect(await startDueSearches(parts)).toBe(0);
});

test('once, at its time', async () => {
  const id = await standing({ kind: 'once', at: clock + DAY });
  expect(await startDueSearches(parts)).toBe(0);
  clock += DAY;
  expect(await startDueSearches(parts)).toBe(1);
  expect(searchRow(db, id)!.standing).toBeNull();
});

test('after another: each time that all of its pulls have ended, not before', async () => {
  const first = await standing(null);
  const second = await standing({ kind: 'after', searchId: first });
  expect(await startDueSearches(parts)).toBe(0);
  for (const round of [1, 2]) {
    clock += DAY;
    startPulls(parts, first, jobId, null, 'you');
    expect(await startDueSearches(parts)).toBe(0);
    clock += 1;
    endPulls(first);
    clock += 1;
    expect(await startDueSearches(parts)).toBe(1);
    expect(await startDueSearches(parts)).toBe(0);
    expect(pullsOf(second)).toHaveLength(round);
    endPulls(second);
  }
});

test('searches that would start each other without end are refused', async () => {
  const a = await standing(null);
  const b = await standing({ kind: 'after', searchId: a });
  const c = await standing({ kind: 'after', searchId: b });
  for (const searchId of [a, b, c])
    expect(() => stand(db, a, { kind: 'after', searchId }, clock)).toThrow('without end');
  expect(stand(db, c, { kind: 'after', searchId: a }, clock)).toMatchObject({ nextAt: null });
});

test('a search that has outgrown what the directory shows is split anew before it is pulled', async () => {
  const id = await standing({ kind: 'days', everyDays: 1, left: null });
  expect(batchesOf(db, id)).toHaveLength(1);
  perTeam = 900;
  clock += DAY;
  expect(await startDueSearches(parts)).toBe(1);
  expect(pullsOf(id)).toEqual([]);
  // It is asked once, and pulled once it is split.
  expect(await startDueSearches(parts)).toBe(0);
  pullSplitSearches(parts);
  expect(pullsOf(id)).toEqual([]);
  await splitNow(id, searchView(db, id)!.splitting!);
  clock += 1;
  pullSplitSearches(parts);
  pullSplitSearches(parts);
  const counts = batchesOf(db, id).map(({ count }) => count);
  expect(counts.length).toBeGreaterThan(1);
  expect(Math.max(...counts)).toBeLessThanOrEqual(2500);
  expect(counts.reduce((sum, count) => sum + count, 0)).toBe(3600);
  expect(pullsOf(id).map(({ promised }) => promised)).toEqual(counts);
  expect(searchRow(db, id)!.split).toMatchObject({ count: 3600, outOfReach: 0, byHand: false });
});

test('why one could not be asked is kept, with since when, until it could', async () => {
  const id = await standing({ kind: 'days', everyDays: 1, left: null });
  clock += DAY;
  down = true;
  await expect(startDueSearches(parts)).rejects.toThrow('down');
  expect(searchView(db, id)!.failed).toMatchObject({ error: 'internal', at: clock });
  clock += 60_000;
  await expect(startDueSearches(parts)).rejects.toThrow('down');
  expect(searchView(db, id)!.failed!.at).toBe(clock - 60_000);
  down = false;
  expect(await startDueSearches(parts)).toBe(1);
  expect(searchView(db, id)!.failed).toBeNull();
});

test('one that cannot be asked keeps no other from its turn', async () => {
  const gone = await standing({ kind: 'once', at: clock });
  const id = await standing({ kind: 'once', at: clock });
  db.$client.prepare(`UPDATE search_batches SET search = '{}' WHERE search_id = ?`).run(gone);
  await expect(startDueSearches(parts)).rejects.toThrow();
  expect(pullsOf(id)).toHaveLength(1);
  expect(searchRow(db, id)!.standing).toBeNull();
});

test('while the directory is down a due search stays due', async () => {
  const id = await standing({ kind: 'once', at: clock });
  down = true;
  await expect(startDueSearches(parts)).rejects.toThrow('down');
  expect(pullsOf(id)).toEqual([]);
  down = false;
  expect(await startDueSearches(parts)).toBe(1);
  expect(lastRun).toBeGreaterThan(0);
});
