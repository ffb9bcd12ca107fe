import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { existsSync, readdirSync, utimesSync } from 'node:fs';
import { join } from 'node:path';
import type { DecisionRow, HarvestView, NewHarvest, SettingsView, SourceRow, WebPage } from '@sieve/contract';
import { stopRules } from '@sieve/core';
import { cleanUploads } from '../sources/clean-uploads';
import { harness } from '../testing/harness';
import { startDueHarvests } from './commands';
import { setHarvest } from './store';

jest.setTimeout(60_000);

const SITE = 'https://guild.example';
const NAMES = ['Maren Oakhill', 'Idris Venn', 'Rhona Parry', 'Callum Farrow', 'Aoife Brannagh', 'Piers Tolliver'];
const card = (id: number) =>
  `<div class="card"><h3><a href="/m/${id}">${NAMES[id % NAMES.length]}</a></h3><p class="role">Owner</p></div>`;
const pageOf = (ids: readonly number[], next = '') =>
  `<title>Members</title><main>${ids.map(card).join('')}</main>${next}`;
let answer: (request: IncomingMessage, response: ServerResponse) => void;
const site = createServer((request, response) => answer(request, response));
let server: Awaited<ReturnType<typeof harness>>;
beforeAll(async () => {
  await new Promise<void>((resolve) => site.listen(0, '127.0.0.1', resolve));
  server = await harness();
  const { body } = await server.call<SettingsView>('GET', '/api/settings');
  const at = `127.0.0.1:${(site.address() as AddressInfo).port}`;
  const settings = { ...body.settings, web: { simulatedHosts: ['guild.example'], simulatedAt: at } };
  await server.call('PUT', '/api/settings', { ...body, settings });
});
afterAll(async () => {
  await server.close();
  await new Promise((resolve) => site.close(resolve));
});
beforeEach(() => {
  answer = (request, response) => {
    if (request.url === '/robots.txt')
      return void response.writeHead(200, { 'content-type': 'text/plain' }).end('User-agent: *\nDisallow: /shut\n');
    const page = Number(/p=(\d+)/.exec(request.url!)?.[1] ?? 1);
    const next = page < 3 ? `<a rel="next" href="/members?p=${page + 1}">Next</a>` : '';
    const other =
      page === 2
        ? '<table><tr><td>1</td><td>x</td></tr><tr><td>2</td><td>y</td></tr><tr><td>3</td><td>z</td></tr></table>'
        : '';
    response
      .writeHead(200, { 'content-type': 'text/html' })
      .end(other ? other + next : pageOf([page * 3, page * 3 + 1, page * 3 + 2], next));
  };
});

async function look(address: string) {
  const { body: upload } = await server.call<{ id: string; address: string }>('POST', '/api/pages', { address });
  const { body: page } = await server.call<WebPage>('POST', `/api/uploads/${upload.id}/page?name=guild`, {
    address: upload.address,
  });
  return { upload: upload.id, page };
}
function wish(upload: string, { address, sets: [set] }: WebPage, change: Partial<NewHarvest> = {}): NewHarvest {
  return {
    uploadId: upload,
    name: 'Members',
    address,
    set: { path: set!.path, identity: set!.identity, fields: set!.fields.map(({ key, name }) => ({ key, name })) },
    columns: set!.fields.map(({ name, target }) => ({ name, target })),
    next: { by: 'found' },
    stop: stopRules.parse({ nothingNew: false }),
    seconds: 0.2,
    everyDays: null,
    ...change,
  };
}
const newJob = async (name: string) => (await server.call<{ id: number }>('POST', '/api/jobs', { name })).body.id;
const viewOf = async (id: number) => (await server.call<HarvestView>('GET', `/api/harvests/${id}`)).body;

test('a page is fetched, looked at, shown without anything that runs, and harvested with the pages after it', async () => {
  const { upload, page } = await look(`${SITE}/members?p=1`);
  expect(page).toMatchObject({ title: 'Members', followed: `${SITE}/members?p=2`, remembered: null });
  expect(page.sets[0]).toMatchObject({ count: 3, identity: '/h3/a@link' });
  expect(page.sets[0]!.fields.map(({ name, target }) => [name, target])).toContainEqual(['Full name', 'fullName']);
  const shown = await server.app.inject({ url: `/api/uploads/${upload}/preview`, headers: { host: '127.0.0.1' } });
  expect(shown.headers['content-security-policy']).toBe(
    "sandbox; default-src 'none'; style-src 'unsafe-inline'; frame-ancestors 'self'",
  );
  expect([shown.headers['x-frame-options'], shown.body.match(/ data-record/g)!.length]).toEqual(['SAMEORIGIN', 3]);

  const job = await newJob('Guild');
  const nobody = wish(upload, page, { columns: page.sets[0]!.fields.map(({ name }) => ({ name, target: 'own' })) });
  expect((await server.call('POST', `/api/jobs/${job}/harvests`, nobody)).body).toMatchObject({
    code: 'nothing-mapped',
  });
  const next = { by: 'link' as const, text: 'Next' };
  const { body: started } = await server.call<{ harvestId: number; sourceId: number }>(
    'POST',
    `/api/jobs/${job}/harvests`,
    wish(upload, page, { next }),
  );
  await server.idle();
  expect(await viewOf(started.harvestId)).toMatchObject({
    end: 'last-page',
    rows: 6,
    pages: [{ state: 'read' }, { state: 'changed', rows: 0 }, { state: 'read' }],
  });
  const { body: sources } = await server.call<SourceRow[]>('GET', `/api/jobs/${job}/sources`);
  expect(sources).toMatchObject([{ rows: 6, origin: { kind: 'harvest', harvestId: started.harvestId } }]);
  // How the next page was found is remembered for the site.
  expect((await look(`${SITE}/members?p=3`)).page.remembered).toEqual(next);
});

test('a harvest that stands is asked again when it is due, into a source of its own, and once only', async () => {
  const { upload, page } = await look(`${SITE}/members?p=1`);
  const job = await newJob('Standing');
  const { body: started } = await server.call<{ harvestId: number }>(
    'POST',
    `/api/jobs/${job}/harvests`,
    wish(upload, page, { next: { by: 'none' } }),
  );
  await server.idle();
  const { body: patched } = await server.call<HarvestView>('PATCH', `/api/harvests/${started.harvestId}`, {
    everyDays: 2,
  });
  expect(patched.nextAt! - Date.now()).toBeGreaterThan(1.9 * 86_400_000);
  // It is a decision: taken back by its number, and never over what somebody else changed meanwhile.
  const { body: log } = await server.call<DecisionRow[]>(
    'GET',
    `/api/decisions?subject=harvest&subjectId=${started.harvestId}`,
  );
  expect(log.map(({ body }) => body)).toEqual([
    { kind: 'harvest', before: { everyDays: null }, after: { everyDays: 2 } },
  ]);
  const undone = (is: boolean) => server.call('POST', `/api/decisions/${log[0]!.id}`, { undone: is });
  await undone(true);
  expect(await viewOf(started.harvestId)).toMatchObject({ everyDays: null, nextAt: null });
  await undone(false);
  const stale = { seconds: 9, was: { everyDays: 5 } };
  expect((await server.call('PATCH', `/api/harvests/${started.harvestId}`, stale)).body).toMatchObject({
    code: 'changed-meanwhile',
  });
  expect(await viewOf(started.harvestId)).toMatchObject({ everyDays: 2, seconds: 0.2 });
  answer = (request, response) =>
    request.url === '/robots.txt'
      ? void response.writeHead(404).end()
      : void response.writeHead(200, { 'content-type': 'text/html' }).end(pageOf([2, 3, 4]));
  setHarvest(server.db, started.harvestId, { nextAt: Date.now() - 1 });
  const parts = { db: server.db, queue: server.queue, events: { emit: () => undefined }, now: Date.now };
  startDueHarvests(parts as unknown as Parameters<typeof startDueHarvests>[0]);
  startDueHarvests(parts as unknown as Parameters<typeof startDueHarvests>[0]);
  await server.idle();
  const { body: sources } = await server.call<SourceRow[]>('GET', `/api/jobs/${job}/sources`);
  expect(sources.map(({ rows }) => rows)).toEqual([3, 1]);
  const again = await viewOf(started.harvestId);
  expect([again.rows, again.nextAt! > Date.now()]).toEqual([1, true]);
});

test('a site that forbids, waits or is down is told as that; pages to be looked at are not cleaned away', async () => {
  const told = async (address: string) => {
    const { status, body } = await server.call<{ code: string; message: string }>('POST', '/api/pages', { address });
    return `${status} ${body.code}`;
  };
  expect(await told(`${SITE}/shut/ledger`)).toBe('422 page-refused');
  expect(await told('http://192.168.0.1/')).toBe('400 bad-request');
  expect((await server.call('POST', '/api/pages/robots', { address: `${SITE}/shut` })).body).toEqual({
    allows: false,
    seconds: 0,
    found: true,
  });
  answer = (_, response) => void response.writeHead(429, { 'retry-after': '30' }).end();
  const { body } = await server.call<{ message: string }>('POST', '/api/pages', { address: `${SITE}/a` });
  expect(body.message).toContain('it asks to wait 30 s');
  answer = (_, response) => void response.writeHead(503).end();
  expect(await told(`${SITE}/a`)).toBe('502 page-down');

  const { dataDir } = server;
  const changed = server.db.$client
    .prepare("SELECT file FROM harvest_pages WHERE file <> ''")
    .pluck()
    .all() as string[];
  expect(changed).toHaveLength(1);
  const dir = join(dataDir, 'uploads');
  for (const name of readdirSync(dir)) utimesSync(join(dir, name), 0, 0);
  expect(await cleanUploads({ db: server.db, dataDir, now: Date.now })).toBeGreaterThan(0);
  expect(existsSync(join(dir, changed[0]!))).toBe(true);
});
