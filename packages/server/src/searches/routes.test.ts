import type { EarlierBatches, PickList, SearchView } from '@sieve/contract';
import Papa from 'papaparse';
import { setRun } from '../runs/store';
import { harness } from '../testing/harness';
import { changeSearch } from './commands';
import { startPulls } from './start-pulls';
import { batchesOf, setSearchState } from './store';

jest.setTimeout(60_000);

let server: Awaited<ReturnType<typeof harness>>;
beforeAll(async () => (server = await harness()));
afterAll(() => server.close());

const people = { about: 'people', conditions: [] };
const condition = (field: string, text: string, not = false) => ({ field, not, terms: [{ text, exact: true }] });

test('a search is saved, renamed, filed, and loses its split with other conditions', async () => {
  const { body: made } = await server.call<SearchView>('POST', '/api/searches', { name: 'Leads', search: people });
  expect(made).toMatchObject({ name: 'Leads', folder: '', split: null, batchViews: [], pulls: [], standing: null });
  const patch = (body: object) => server.call<SearchView>('PATCH', `/api/searches/${made.id}`, body);
  expect((await patch({ name: 'Quality leads', folder: 'Autumn' })).body).toMatchObject({
    name: 'Quality leads',
    folder: 'Autumn',
  });
  expect(
    (await patch({ search: { about: 'people', conditions: [condition('team', 'quality')] } })).body.search,
  ).toEqual({
    about: 'people',
    conditions: [condition('team', 'quality')],
  });
  const stands = await patch({ standing: { kind: 'days', everyDays: 7, left: null } });
  expect(stands.body.nextAt! - Date.now()).toBeGreaterThan(6.9 * 86_400_000);
  expect((await patch({ standing: null })).body.nextAt).toBeNull();
  expect((await server.call<SearchView[]>('GET', '/api/searches')).body.map(({ name }) => name)).toEqual([
    'Quality leads',
  ]);
});

test('how a search stands and how many of a company it takes are checked before they are kept', async () => {
  const make = async (name: string) =>
    (await server.call<SearchView>('POST', '/api/searches', { name, search: people })).body.id;
  const [a, b] = [await make('First'), await make('Second')];
  const patch = (id: number, body: object) =>
    server.call<SearchView & { code?: string }>('PATCH', `/api/searches/${id}`, body);
  expect((await patch(b, { standing: { kind: 'after', searchId: a } })).body).toMatchObject({
    standing: { kind: 'after', searchId: a },
    nextAt: null,
  });
  expect((await patch(a, { standing: { kind: 'after', searchId: b } })).body.code).toBe('standing-circle');
  expect((await patch(a, { standing: { kind: 'once', at: 5 } })).body).toMatchObject({ nextAt: 5 });
  expect((await patch(a, { standing: { kind: 'days', everyDays: 0, left: null } })).body.code).toBe('bad-request');
  expect((await patch(a, { perCompany: 3 })).body.perCompany).toBe(3);
  expect((await patch(a, { perCompany: -1 })).body.code).toBe('bad-request');
});

test('without a directory, and with conditions that cannot be, nothing is asked and the words say why', async () => {
  const code = async (path: string, body: object) =>
    (await server.call<{ code: string }>('POST', path, body)).body.code;
  expect(await code('/api/directory/count', { search: people })).toBe('no-directory');
  expect(
    await code('/api/directory/count', { search: { about: 'people', conditions: [condition('growth', 'x')] } }),
  ).toBe('bad-request');
  expect(await code('/api/searches', { name: '', search: people })).toBe('bad-request');
  expect(await code('/api/searches/999/split', {})).toBe('not-found');
});

test('pick lists hold rows of one kind and go to a job as a source that can be taken back', async () => {
  const { body: list } = await server.call<PickList>('POST', '/api/pick-lists', { name: 'Good', about: 'people' });
  expect(list).toMatchObject({ name: 'Good', about: 'people', picks: 0 });
  const { body: job } = await server.call<{ id: number }>('POST', '/api/jobs', { name: 'J' });
  const empty = await server.call<{ code: string }>('POST', `/api/pick-lists/${list.id}/to-job`, { jobId: job.id });
  expect(empty.body.code).toBe('no-rows');
  const row = (id: number) =>
    JSON.stringify({
      id: `people-${id}`,
      name: `Maren Oakhill ${'★'.repeat(id)}`,
      title: '=1+1',
      company: 'Brackenfold',
      place: '',
      link: `https://www.directory.example/p/${id}/`,
      found: { country: 'GB' },
    });
  const add = server.db.$client.prepare('INSERT INTO picks (list_id, row_id, row, at) VALUES (?, ?, ?, 1)');
  for (const id of [1, 2]) add.run(list.id, `people-${id}`, row(id));
  const file = await server.app.inject({ url: `/api/pick-lists/${list.id}/file`, headers: { host: '127.0.0.1' } });
  expect(file.headers['content-disposition']).toContain(`pick-list-${list.id}.csv`);
  const [header, first] = Papa.parse<string[]>(file.body.slice(1).trim()).data;
  expect([header!.slice(0, 3), first!.slice(0, 3)]).toEqual([
    ['Name', 'Title', 'Company'],
    ['Maren Oakhill ★', "'=1+1", 'Brackenfold'],
  ]);
  await server.call('POST', `/api/pick-lists/${list.id}/to-job`, { jobId: job.id });
  await server.idle();
  const records = async () =>
    (await server.call<{ summary: { records: number } }>('GET', `/api/jobs/${job.id}`)).body.summary.records;
  expect(await records()).toBe(2);
  await server.undo(job.id);
  await server.idle();
  expect(await records()).toBe(0);
});

test('a pull that goes on when its rows are taken back is stopped, and can be pulled again', async () => {
  const { body: job } = await server.call<{ id: number }>('POST', '/api/jobs', { name: 'Taken back' });
  const made = await server.call<SearchView>('POST', '/api/searches', { name: 'S', jobId: job.id, search: people });
  const id = made.body.id;
  setSearchState(server.db, id, { batches: [{ search: made.body.search, count: 50, kept: {} }] });
  const [batch] = batchesOf(server.db, id);
  // Not before tomorrow: it waits its turn.
  const parts = { db: server.db, queue: server.queue, events: { emit: () => undefined } as never, now: Date.now };
  const [runId] = startPulls(parts, id, job.id, [batch!.id], 'you');
  setRun(server.db, runId!, { notBefore: Date.now() + 86_400_000 });
  await server.undo(job.id);
  const view = (await server.call<SearchView>('GET', `/api/searches/${id}`)).body;
  expect(view.pulls).toMatchObject([{ stopped: true, takenBack: true }]);
  expect(server.queue.view(runId!)!.state).toBe('cancelled');
});

test('batches that changed conditions took away can be had back, with the conditions they were of, and taken back again', async () => {
  const made = await server.call<SearchView>('POST', '/api/searches', { name: 'Early', search: people });
  const id = made.body.id;
  const first = { about: 'people' as const, conditions: [condition('team', 'quality')] };
  changeSearch(server.db, id, { search: first }, 0);
  changeSearch(server.db, id, { batches: [{ search: first, count: 50, kept: {} }] }, 0);
  await server.call('PATCH', `/api/searches/${id}`, { search: people });
  await server.call('PATCH', `/api/searches/${id}`, { name: 'Early, renamed' });
  const view = async () => (await server.call<SearchView>('GET', `/api/searches/${id}`)).body;
  expect((await view()).batchViews).toEqual([]);
  const [earlier] = (await server.call<EarlierBatches[]>('GET', `/api/searches/${id}/earlier`)).body;
  expect(earlier).toMatchObject({ batches: 1, search: first });
  await server.call('POST', `/api/searches/${id}/restore`, { decision: earlier!.decision });
  expect(await view()).toMatchObject({ name: 'Early, renamed', search: first, batchViews: [{ count: 50 }] });
  expect((await server.call('POST', `/api/searches/${id}/restore`, { decision: 9999 })).status).toBe(404);
});
