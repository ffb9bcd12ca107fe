import { mkdirSync, utimesSync, writeFileSync, existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { cleanUploads } from '../sources/clean-uploads';
import { harness } from '../testing/harness';

let server: Awaited<ReturnType<typeof harness>>;
let job: number;
beforeAll(async () => {
  server = await harness();
  job = (await server.call<{ id: number }>('POST', '/api/jobs', { name: 'Wrong' })).body.id;
});
afterAll(() => server.close());

const columns = [{ name: 'Name', target: 'fullName' }];
const table = { kind: 'table', encoding: 'utf-8', delimiter: ',', headerRow: 0 };
const source = (more: object) => ({ uploadId: 'a'.repeat(36), name: 'x.csv', format: table, columns, ...more });

test.each([
  ['POST', '/api/uploads?name=x.csv', undefined, 422, 'empty-file'],
  ['POST', `/api/uploads/${'a'.repeat(36)}/inspect?name=x.csv`, {}, 404, 'not-found'],
  ['POST', '/api/jobs/1/sources', source({}), 404, 'not-found'],
  ['POST', '/api/jobs/1/sources', source({ format: { ...table, encoding: 'hz-gb-2312' } }), 422, 'unknown-encoding'],
  ['POST', '/api/jobs/1/decisions', { body: { kind: 'bring-in', sourceId: 1, name: 'x' } }, 400, 'bad-request'],
  ['POST', '/api/jobs/999/decisions', { body: { kind: 'set-aside', recordIds: [1] } }, 404, 'not-found'],
  ['GET', '/api/exports/999/zip', undefined, 404, 'not-found'],
  ['PUT', '/api/settings', { version: 0, settings: { currency: '£££' } }, 400, 'bad-request'],
  ['PUT', '/api/settings', { version: 0, settings: { pace: { fromMinute: 60, toMinute: 60 } } }, 400, 'bad-request'],
  ['PUT', '/api/settings', { version: 0, settings: { timeZone: 'Mars/Base' } }, 400, 'bad-request'],
] as const)('%s %s is answered with %s', async (method, url, body, status, code) => {
  expect(await server.call(method, url, body)).toMatchObject({ status, body: { code } });
});

test('refusals carry the same headers as answers; other methods are not found', async () => {
  const ask = (method: 'GET' | 'OPTIONS', host: string) =>
    server.app.inject({ method, url: '/api/jobs', headers: { host } });
  const [good, wrong, other] = await Promise.all([
    ask('GET', '127.0.0.1'),
    ask('GET', 'evil.example'),
    ask('OPTIONS', '127.0.0.1'),
  ]);
  expect([good.statusCode, wrong.statusCode, other.statusCode]).toEqual([200, 403, 404]);
  for (const { headers } of [wrong, other]) {
    expect(headers['content-security-policy']).toBe(good.headers['content-security-policy']);
    expect(headers['x-content-type-options']).toBe('nosniff');
  }
  expect(other.json()).toMatchObject({ code: 'not-found' });
});

test('columns named like parts of an object are fields like others', async () => {
  await server.bring(
    job,
    'odd.csv',
    'Name,Email,constructor,__proto__\nMaren Oakhill,m@tidewell.example,builder,parent\nAoife Corrie,a@moss.example,,\n',
  );
  for (const step of ['append-email', 'verify']) await server.setUp(job, step, {}, false);
  await server.idle();
  const fields = ['own:constructor', 'own:proto'];
  const layout = {
    columns: fields.map((field) => ({ field, heading: field })),
    verdicts: ['none', 'valid', 'risky', 'unknown'],
  };
  const { body } = await server.call<{ first: string[][]; ownFields: string[] }>(
    'POST',
    `/api/jobs/${job}/exports/preview`,
    layout,
  );
  expect([body.first, body.ownFields]).toEqual([
    [
      ['', ''],
      ['builder', 'parent'],
    ],
    ['constructor', 'proto'],
  ]);
});

test('uploads that nobody brought in go after a week; those of a source stay', async () => {
  const dataDir = dirname(server.db.$client.name);
  const uploads = join(dataDir, 'uploads');
  mkdirSync(uploads, { recursive: true });
  for (const name of ['old', 'new']) writeFileSync(join(uploads, name), 'x');
  const used = server.db.$client.prepare("SELECT file FROM sources WHERE file <> ''").pluck().get() as string;
  const longAgo = Date.now() / 1000 - 8 * 86_400;
  for (const name of ['old', used]) utimesSync(join(uploads, name), longAgo, longAgo);
  expect(await cleanUploads({ db: server.db, dataDir, now: Date.now })).toBe(1);
  expect(['old', 'new', used].map((name) => existsSync(join(uploads, name)))).toEqual([false, true, true]);
});
