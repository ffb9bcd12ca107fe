import Database from 'better-sqlite3';
import type { Job, Run } from '@sieve/contract';
import { harness } from '../testing/harness';

jest.setTimeout(60_000);
let server: Awaited<ReturnType<typeof harness>>;
let id: number;
beforeAll(async () => {
  server = await harness();
  id = (await server.call<Job>('POST', '/api/jobs', { name: 'Refused' })).body.id;
  await server.bring(id, 'a.csv', 'Name,Email\nMaren Oakhill,m@tidewell.example\n');
});
afterAll(() => server.close());

const aside = () =>
  server.call<{ code?: string }>('POST', `/api/jobs/${id}/decisions`, { body: { kind: 'set-aside', recordIds: [1] } });
const kept = async () => (await server.call<object[]>('GET', `/api/decisions?subject=job&subjectId=${id}`)).body.length;

test('a command waits for another program’s lock, and nobody waits with it', async () => {
  const other = new Database(server.db.$client.name);
  other.exec('BEGIN IMMEDIATE');
  const waiting = aside();
  expect((await server.call<Job>('GET', `/api/jobs/${id}`)).status).toBe(200);
  expect(other.inTransaction).toBe(true);
  other.close();
  expect((await waiting).status).toBe(200);
  await server.idle();
});

test('a database that another program holds: the write says so, keeps nothing, and is done when it is free', async () => {
  const before = await kept();
  const other = new Database(server.db.$client.name);
  other.exec('BEGIN IMMEDIATE');
  expect(await aside()).toMatchObject({ status: 503, body: { code: 'locked' } });
  expect((await server.call<Job>('GET', `/api/jobs/${id}`)).status).toBe(200);
  other.close();
  expect(await kept()).toBe(before);
  expect((await aside()).status).toBe(200);
  await server.idle();
});

// e2e/disk.spec.ts fills a real disk, where one may be mounted; here SQLite is told that its file may not grow.
test('a disk that fills up in the middle of a command: nothing of it is kept', async () => {
  const before = (await server.call<Run[]>('GET', '/api/runs')).body;
  const pages = server.db.$client.pragma('page_count', { simple: true }) as number;
  server.db.$client.pragma(`max_page_count = ${pages + 2}`);
  const text = Array.from({ length: 5000 }, (_, i) => `firm${i}.example`).join(' ');
  expect(await server.call('POST', '/api/suppressions', { text })).toMatchObject({
    status: 507,
    body: { code: 'disk-full' },
  });
  expect((await server.call<object[]>('GET', '/api/suppressions')).body).toEqual([]);
  expect((await server.call<Run[]>('GET', '/api/runs')).body).toEqual(before);
  server.db.$client.pragma('max_page_count = 4294967294');
  expect((await server.call('POST', '/api/suppressions', { text })).body).toMatchObject({ added: 5000 });
  await server.idle();
});
