import { pace, tidier, NO_LISTS, type Column } from '@sieve/core';
import { seededRandom } from '@sieve/core/text/random';
import type { DirectoryRow } from '@sieve/contract';
import type { Directory } from '../outside/directory/port';
import { keysOfRow } from '../register/held-rows';
import { feed } from '../register/register';
import { directoryColumns } from '../sources/directory/directory-source';
import { setUndone } from '../decisions/commands';
import { broughtIn } from '../decisions/store';
import { addSource } from '../sources/store';
import { testContext, testDb, testJob } from '../testing/fixtures';
import { pullBatch } from './pull-run';
import { addPull, addSearch, searchView } from './store';

jest.setTimeout(60_000);

const { db } = testDb();

const search = { about: 'people' as const, conditions: [] };
const row = (id: number): DirectoryRow => ({
  id: `people-${id}`,
  name: `Maren ${id}`,
  title: 'Owner',
  company: 'Brackenfold',
  place: '',
  link: `https://www.directory.example/p/${id}/`,
  found: {},
});

/** A directory of ten rows a page, which answers as the test says. */
const plan = (answers: Pick<Directory, 'count' | 'page'>): Directory => ({
  name: 'Plan',
  pageSize: 10,
  pages: { people: 100, companies: 40, postings: 40 },
  find: async () => [],
  named: async () => ({ total: 0, people: [] }),
  facet: async () => null,
  ...answers,
});

function newPull(
  jobId: number,
  more: { perCompany?: number; first?: number; kept?: Record<string, string> } = {},
): number {
  const origin = { kind: 'directory' as const, searchId: 1 };
  const columns = directoryColumns('people', more.kept);
  const sourceId = addSource(db, { jobId, name: 'pull', origin, about: 'people', columns, file: '' }, 'you', 0);
  const at = { searchId: 1, batch: 0, batchId: 1, jobId, sourceId, runId: 1 };
  return addPull(db, { ...at, search, standing: false, startedAt: 0, ...more });
}

const context = (pullId: number, jobId: number, signal: AbortSignal, now: () => number = () => 1) =>
  testContext<'pull'>(db, jobId, { kind: 'pull', pullId, searchId: 1 }, { signal, now });
const always = { ...pace.parse({ rowsADay: 0, fromMinute: 0, toMinute: 1440, workingDays: false }), zone: 'system' };
const recordsOf = (jobId: number) =>
  (
    db.$client
      .prepare('SELECT r.cells FROM records r JOIN sources s ON s.id = r.source_id WHERE s.job_id = ?')
      .pluck()
      .all(jobId) as string[]
  ).map((cells) => (JSON.parse(cells) as string[])[11]!);

test('nothing lost and nothing twice over 240 plans of faults: failed pages, stops between and within pages, shifting results', async () => {
  let shifted = 0;
  let stopped = 0;
  for (let seed = 1; seed <= 240; seed++) {
    const random = seededRandom(seed);
    const size = Math.floor(random() * 90);
    const order = Array.from({ length: size }, (_, i) => i);
    const jobId = testJob(db, `Plan ${seed}`);
    const pullId = newPull(jobId);
    let shifts = random() < 0.7 ? 4 : 0;
    let stop = new AbortController();
    const directory = plan({
      count: async () => size,
      page: async (_search, page) => {
        if (random() < 0.1) throw new Error('the line broke');
        // Rows change places over the edge of the page that is read next.
        if (shifts > 0 && size > page * 10 + 2 && random() < 0.3) {
          shifts--;
          shifted++;
          const edge = page * 10;
          [order[edge - 1], order[edge]] = [order[edge]!, order[edge - 1]!];
        }
        if (random() < 0.1) stop.abort(new Error('stopped'));
        return {
          total: size,
          pages: Math.ceil(size / 10),
          rows: order.slice((page - 1) * 10, page * 10).map(row),
        };
      },
    });
    for (let done = false; !done;) {
      stop = new AbortController();
      done = await pullBatch(context(pullId, jobId, stop.signal), directory, always).then(
        () => true,
        () => {
          stopped++;
          return false;
        },
      );
    }
    const came = recordsOf(jobId);
    expect(new Set(came).size).toBe(came.length);
    expect(came.length).toBe(size);
    expect(db.$client.prepare('SELECT promised, came, fresh FROM pulls WHERE id = ?').get(pullId)).toEqual({
      promised: size,
      came: size,
      fresh: size,
    });
  }
  expect([shifted > 100, stopped > 100]).toEqual([true, true]);
});

test('a second pull into the same job brings only what is new; another job is told what it has elsewhere', async () => {
  const rows = Array.from({ length: 12 }, (_, i) => row(1000 + i));
  const directory = (visible: number): Directory =>
    plan({
      count: async () => visible,
      page: async (_search, page) => ({
        total: visible,
        pages: Math.ceil(visible / 10),
        rows: rows.slice(0, visible).slice((page - 1) * 10, page * 10),
      }),
    });
  const [a, b] = ['A', 'B'].map((name) => testJob(db, name)) as [number, number];
  const never = new AbortController().signal;
  const pull = async (job: number, visible: number) => {
    const id = newPull(job);
    await pullBatch(context(id, job, never), directory(visible), always);
    return db.$client.prepare('SELECT came, fresh, yours FROM pulls WHERE id = ?').get(id);
  };
  expect(await pull(a, 9)).toEqual({ came: 9, fresh: 9, yours: 0 });
  expect(await pull(a, 12)).toEqual({ came: 12, fresh: 3, yours: 0 });
  // As a sifting of the first job tells it.
  feed(
    db.register,
    { job: a, about: 'people' },
    null,
    rows.map((one, item) => ({ item, keys: keysOfRow(one) })),
  );
  expect(await pull(b, 12)).toEqual({ came: 12, fresh: 12, yours: 12 });
  expect(recordsOf(a)).toHaveLength(12);
});

test('what was taken back can be pulled again; what is in the job is not brought in twice', async () => {
  const jobId = testJob(db, 'Back');
  const directory = plan({
    count: async () => 3,
    page: async () => ({ total: 3, pages: 1, rows: [0, 1, 2].map((i) => ({ ...row(9600 + i), company: 'Moss' })) }),
  });
  const pull = async () => {
    const id = newPull(jobId, { perCompany: 2 });
    await pullBatch(context(id, jobId, new AbortController().signal), directory, always);
    return db.$client.prepare('SELECT fresh, full FROM pulls WHERE id = ?').get(id);
  };
  expect(await pull()).toEqual({ fresh: 2, full: 1 });
  const [{ decision } = { decision: 0 }] = broughtIn(db, jobId).values();
  setUndone(db, decision, true, 1);
  expect(await pull()).toEqual({ fresh: 2, full: 1 });
  expect(await pull()).toEqual({ fresh: 0, full: 1 });
});

test('at most so many of a company are taken; a higher limit brings the others later', async () => {
  const jobId = testJob(db, 'Full');
  const firms = ['Tidewell Ltd', 'TIDEWELL LTD', 'Arranmor', 'Tidewell Ltd', '', '', 'Tidewell Ltd'];
  const directory = plan({
    count: async () => firms.length,
    page: async () => ({
      total: firms.length,
      pages: 1,
      rows: firms.map((company, i) => ({ ...row(9000 + i), company })),
    }),
  });
  const pull = async (perCompany: number) => {
    const id = newPull(jobId, { perCompany });
    const ended = await pullBatch(context(id, jobId, new AbortController().signal), directory, always);
    return [ended, recordsOf(jobId).map((link) => Number(link.slice(-1)))];
  };
  expect(await pull(2)).toEqual([{ code: 'pulled', promised: 7, came: 7, fresh: 5, full: 2 }, [0, 1, 2, 4, 5]]);
  expect((await pull(3))[1]).toEqual([0, 1, 2, 4, 5, 3]);
  expect((await pull(0))[1]).toEqual([0, 1, 2, 4, 5, 3, 6]);
});

test('cells kept from a sheet go with every row, as fields of its own', async () => {
  const jobId = testJob(db, 'Kept');
  const kept = { Region: 'South', 'Account owner': 'Maren' };
  const id = newPull(jobId, { kept });
  const directory = plan({
    count: async () => 1,
    page: async () => ({ total: 1, pages: 1, rows: [row(9500)] }),
  });
  await pullBatch(context(id, jobId, new AbortController().signal), directory, always);
  const { columns, cells } = db.$client
    .prepare('SELECT s.columns, r.cells FROM records r JOIN sources s ON s.id = r.source_id WHERE s.job_id = ?')
    .get(jobId) as { columns: string; cells: string };
  const { extra } = tidier({ phoneCountry: 'GB', lists: NO_LISTS })(
    JSON.parse(cells) as string[],
    JSON.parse(columns) as Column[],
  );
  expect(extra).toMatchObject(kept);
});

test('a pull whose run was cancelled, or is gone, is told as stopped; one that failed can go on', () => {
  const jobId = testJob(db, 'Stopped');
  addSearch(db, { name: 'S', folder: '', jobId, search, perCompany: 0 }, 0);
  const stopped = (pullId: number) => searchView(db, 1)!.pulls.find(({ id }) => id === pullId)!.stopped;
  const pullId = newPull(jobId);
  expect(stopped(pullId)).toBe(true);
  const run = db.$client.prepare(
    `INSERT OR REPLACE INTO runs (id, job_id, input, state, created_at) VALUES (1, ?, '{}', ?, 0)`,
  );
  for (const [state, expected] of [
    ['running', false],
    ['failed', false],
    ['cancelled', true],
  ] as const) {
    run.run(jobId, state);
    expect([state, stopped(pullId)]).toEqual([state, expected]);
  }
});

test('a pull keeps its hours, its rows a day and its rows a run', async () => {
  const jobId = testJob(db, 'Pace');
  const directory = plan({
    count: async () => 50,
    page: async (_search, page) => ({
      total: 50,
      pages: 5,
      rows: Array.from({ length: 10 }, (_, i) => row(5000 + page * 10 + i)),
    }),
  });
  const at = (text: string) => new Date(text).getTime();
  const pull = (id: number, now: string, more: object) =>
    pullBatch(
      context(id, jobId, new AbortController().signal, () => at(now)),
      directory,
      { ...pace.parse(more), zone: 'system' },
    );
  const first = newPull(jobId);
  // A Friday evening waits for Monday morning.
  expect(await pull(first, '2026-11-27T19:00', {})).toMatchObject({ at: at('2026-11-30T08:30') });
  expect(await pull(first, '2026-11-30T09:00', { rowsADay: 20 })).toMatchObject({ at: at('2026-12-01T08:30') });
  expect(await pull(first, '2026-12-01T09:00', { rowsARun: 10 })).toMatchObject({ at: null });
  expect(await pull(first, '2026-12-02T09:00', {})).toEqual({
    code: 'pulled',
    promised: 50,
    came: 50,
    fresh: 50,
    full: 0,
  });
});

test('the first n rows of a batch, to the row, and no page more than they need', async () => {
  const jobId = testJob(db, 'First rows');
  const pullId = newPull(jobId, { first: 25 });
  const pages: number[] = [];
  const directory = plan({
    count: async () => 400,
    page: async (_, page) => {
      pages.push(page);
      return { total: 400, pages: 40, rows: Array.from({ length: 10 }, (_, i) => row(page * 10 + i)) };
    },
  });
  const result = await pullBatch(context(pullId, jobId, new AbortController().signal), directory, always);
  expect(result).toEqual({ code: 'pulled', promised: 25, came: 25, fresh: 25, full: 0 });
  expect(pages).toEqual([1, 2, 3]);
  expect(recordsOf(jobId)).toHaveLength(25);
});
