import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { findRecordSets, identityOf, pathOf, readPage, stopRules, type StopRules } from '@sieve/core';
import { seededRandom } from '@sieve/core/text/random';
import { settings, type NextWish } from '@sieve/contract';
import { setUndone } from '../decisions/commands';
import { broughtIn } from '../decisions/store';
import { AppError } from '../errors';
import { addSource } from '../sources/store';
import { testContext, testDb, testJob } from '../testing/fixtures';
import { runHarvest } from './harvest-run';
import { resolver } from '../sources/documents/page';
import { harvestFields } from './page-look';
import { addHarvest, harvestView, setHarvest, theHarvest } from './store';

jest.setTimeout(60_000);

const { db, dir } = testDb();
const HOST = 'guild.example';
const SITE = `https://${HOST}`;
let answer: (request: IncomingMessage, response: ServerResponse) => void;
let visits: string[] = [];
const server = createServer((request, response) => {
  visits.push(request.url!);
  answer(request, response);
});
beforeAll(() => new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve)));
afterAll(() => new Promise((resolve) => server.close(resolve)));
beforeEach(() => (visits = []));

const web = () => ({ simulatedHosts: [HOST], simulatedAt: `127.0.0.1:${(server.address() as AddressInfo).port}` });
const card = (id: number, stock = 9) =>
  `<div class="card"><h3><a href="/m/${id}">Maren Oakhill${id}</a></h3><p class="role">Owner</p><p class="stock">${stock}</p></div>`;
const pageOf = (ids: readonly number[], next: number | null, stock?: (id: number) => number) =>
  `<main>${ids.map((id) => card(id, stock?.(id))).join('')}</main>${next === null ? '' : `<a rel="next" href="/members?p=${next}">Next</a>`}`;

interface Wish {
  stop?: Partial<StopRules>;
  next?: NextWish;
}

/** A harvest that begins with the first page of the site, as it was looked at. */
function begin(name: string, first: string, { stop = {}, next = { by: 'found' } }: Wish = {}) {
  const jobId = testJob(db, name);
  mkdirSync(join(dir, 'uploads'), { recursive: true });
  const file = `first-page-${jobId}`;
  writeFileSync(join(dir, 'uploads', file), first);
  const [set] = findRecordSets(readPage(first));
  const fields = harvestFields(set!, resolver({ base: '' }, `${SITE}/members?p=1`));
  const columns = fields.map((field) => ({
    name: field.name,
    target: field.name === 'Text' ? ('fullName' as const) : ('own' as const),
  }));
  const address = `${SITE}/members?p=1`;
  const origin = { kind: 'harvest' as const, address, harvestId: 0 };
  const sourceId = addSource(db, { jobId, name, origin, about: 'people', columns, file }, 'you', 0);
  const known = {
    path: pathOf(set!),
    identity: identityOf(fields),
    fields: fields.map(({ key, name: called }) => ({ key, name: called })),
  };
  const id = addHarvest(db, {
    ...{ jobId, sourceId, runId: 0, name, start: address, address, file, set: known, next },
    ...{ stop: stopRules.parse({ nothingNew: false, ...stop }), seconds: 0 },
  });
  return { id, jobId, sourceId };
}

const run = (id: number, jobId: number, signal = new AbortController().signal, now: () => number = Date.now) =>
  runHarvest({
    ...testContext<'harvest'>(db, jobId, { kind: 'harvest', harvestId: id }, { signal, now }),
    dataDir: dir,
    settings: settings.parse({ web: web() }),
  });
const peopleOf = (jobId: number) =>
  (
    db.$client
      .prepare('SELECT r.cells FROM records r JOIN sources s ON s.id = r.source_id WHERE s.job_id = ? ORDER BY r.id')
      .pluck()
      .all(jobId) as string[]
  ).map((cells) => Number(/\/m\/(\d+)/.exec(cells)![1]));
const html = (response: ServerResponse, body: string, status = 200, headers = {}) =>
  response.writeHead(status, { 'content-type': 'text/html', ...headers }).end(body);
const robots = (response: ServerResponse, text = '') =>
  response.writeHead(200, { 'content-type': 'text/plain' }).end(text);

test('nobody lost and nobody twice over 60 plans: pages that fail, stops anywhere, members who repeat on the next page', async () => {
  let stops = 0;
  for (let seed = 1; seed <= 60; seed++) {
    const random = seededRandom(seed);
    const pages = 2 + Math.floor(random() * 5);
    let stop = new AbortController();
    const idsOf = (page: number) => {
      const ids = Array.from({ length: 5 }, (_, i) => page * 5 + i);
      return page % 2 === 0 ? [page * 5 - 1, ...ids] : ids;
    };
    answer = (request, response) => {
      if (request.url === '/robots.txt') return void robots(response);
      const page = Number(/p=(\d+)/.exec(request.url!)![1]);
      if (random() < 0.2) stop.abort(new Error('stopped'));
      html(response, pageOf(idsOf(page), page < pages ? page + 1 : null));
    };
    const { id, jobId } = begin(`Plan ${seed}`, pageOf(idsOf(1), 2));
    for (let done = false; !done;) {
      stop = new AbortController();
      done = await run(id, jobId, stop.signal).then(
        () => true,
        () => {
          stops++;
          return false;
        },
      );
    }
    expect(peopleOf(jobId)).toEqual(Array.from({ length: pages * 5 }, (_, i) => i + 5));
    expect(harvestView(db, theHarvest(db, id))).toMatchObject({ rows: pages * 5, end: 'last-page' });
  }
  expect(stops).toBeGreaterThan(20);
});

test('a site that asks to wait is asked again when it said; one that cannot be had is told, and the page comes later', async () => {
  let state: 'wait' | 'down' | 'up' = 'wait';
  answer = (request, response) => {
    if (request.url === '/robots.txt') return void robots(response);
    if (state === 'wait') return void html(response, 'later', 429, { 'retry-after': '90' });
    if (state === 'down') return void html(response, 'gone', 404);
    return void html(response, pageOf([8, 9, 10], null));
  };
  const { id, jobId } = begin('Waits', pageOf([5, 6, 7], 2));
  expect(await run(id, jobId, undefined, () => 1000)).toEqual({
    later: { code: 'asked-to-wait', host: HOST, rows: 3 },
    at: 91_000,
  });
  state = 'down';
  await expect(run(id, jobId)).rejects.toMatchObject({ code: 'page-down', details: { reason: 'it answered 404' } });
  state = 'up';
  expect(await run(id, jobId)).toMatchObject({ code: 'harvested', pages: 2, rows: 6 });
  expect(peopleOf(jobId)).toEqual([5, 6, 7, 8, 9, 10]);
});

test('it stops by its rules: pages, rows to the row, a column that turns, a page without news', async () => {
  answer = (request, response) => {
    if (request.url === '/robots.txt') return void robots(response);
    const page = Number(/p=(\d+)/.exec(request.url!)![1]);
    const ids = page === 4 ? [15, 16, 17] : [page * 5, page * 5 + 1, page * 5 + 2, page * 5 + 3];
    html(
      response,
      pageOf(ids, page + 1, (id) => Math.max(0, 17 - id)),
    );
  };
  const first = pageOf([5, 6, 7, 8], 2, (id) => 17 - id);
  const ends = async (stop: Partial<StopRules>) => {
    const { id, jobId } = begin(JSON.stringify(stop), first, { stop });
    const result = (await run(id, jobId)) as { end: string };
    return [result.end, peopleOf(jobId)];
  };
  expect(await ends({ pages: 2 })).toEqual(['pages', [5, 6, 7, 8, 10, 11, 12, 13]]);
  expect(await ends({ rows: 6 })).toEqual(['rows', [5, 6, 7, 8, 10, 11]]);
  const fields = harvestFields(findRecordSets(readPage(first))[0]!, (link) => link);
  const field = fields.findIndex(({ values }) => values[0] === '12');
  expect(await ends({ column: { field, turns: 'blank or zero' } })).toEqual([
    'column',
    [5, 6, 7, 8, 10, 11, 12, 13, 15, 16],
  ]);
  expect(await ends({ nothingNew: true, pages: 9 })).toEqual([
    'nothing-new',
    [5, 6, 7, 8, 10, 11, 12, 13, 15, 16, 17, 18],
  ]);
});

test('a page of another layout is told and kept to be looked at; the ones after it are read', async () => {
  const other = `<ul>${[1, 2, 3, 4].map((id) => `<li>${id}: <b>Maren</b></li>`).join('')}</ul><a rel="next" href="/members?p=3">Next</a>`;
  answer = (request, response) => {
    if (request.url === '/robots.txt') return void robots(response);
    html(response, request.url === '/members?p=2' ? other : pageOf([15, 16, 17], null));
  };
  const { id, jobId } = begin('Layout', pageOf([5, 6, 7], 2));
  expect(await run(id, jobId)).toMatchObject({ changed: 1, pages: 3, rows: 6 });
  const { pages } = harvestView(db, theHarvest(db, id));
  expect(pages.map(({ state, rows }) => [state, rows])).toEqual([
    ['read', 3],
    ['changed', 0],
    ['read', 3],
  ]);
  expect(pages[1]!.upload).not.toBe('');
});

test('robots.txt is kept to, wherever an address leads; what is not public is not fetched', async () => {
  let leads = '/members?p=9';
  answer = (request, response) => {
    if (request.url === '/robots.txt')
      return void robots(response, 'User-agent: *\nDisallow: /members?p=3\nCrawl-delay: 0.01');
    if (request.url === '/members?p=2') return void html(response, pageOf([8, 9, 10], 3));
    if (request.url === '/members?p=8') return void response.writeHead(302, { location: leads }).end();
    return void html(response, 'never');
  };
  const refused = begin('Refused', pageOf([5, 6, 7], 2));
  await expect(run(refused.id, refused.jobId)).rejects.toMatchObject({ code: 'page-refused' });
  expect(peopleOf(refused.jobId)).toHaveLength(6);
  expect(visits).toEqual(['/robots.txt', '/members?p=2']);
  for (const [to, code] of [
    ['/members?p=3', 'page-refused'],
    ['http://127.0.0.1/x', 'private-address'],
    ['http://[::ffff:10.0.0.1]/', 'private-address'],
    ['http://localhost:1/', 'private-address'],
  ] as const) {
    leads = to;
    const led = begin(`Led to ${to}`, pageOf([5, 6, 7], 8));
    const error: unknown = await run(led.id, led.jobId).catch((thrown: unknown) => thrown);
    expect([to, error instanceof AppError && error.code]).toEqual([to, code]);
  }
});

test('asked again, only who is new comes; who was taken back comes again', async () => {
  let first = [5, 6, 7];
  answer = (request, response) =>
    request.url === '/robots.txt'
      ? robots(response)
      : html(
          response,
          pageOf(request.url === '/members?p=1' ? first : [8, 9, 10], request.url === '/members?p=1' ? 2 : null),
        );
  const { id, jobId, sourceId } = begin('Again', pageOf([5, 6, 7], 2));
  await run(id, jobId);
  const again = async () => {
    const { round, start, name } = theHarvest(db, id);
    const origin = { kind: 'harvest' as const, address: start, harvestId: id };
    const source = addSource(db, { jobId, name, origin, about: 'people', columns: [], file: '' }, 'schedule', 0);
    setHarvest(db, id, { round: round + 1, number: 1, address: start, end: null, sourceId: source });
    db.$client
      .prepare('UPDATE sources SET columns = (SELECT columns FROM sources WHERE id = ?) WHERE id = ?')
      .run(sourceId, source);
    return ((await run(id, jobId)) as { rows: number }).rows;
  };
  first = [4, 5, 6];
  expect(await again()).toBe(1);
  setUndone(db, broughtIn(db, jobId).get(sourceId)!.decision, true, 1);
  expect(await again()).toBe(5);
});
