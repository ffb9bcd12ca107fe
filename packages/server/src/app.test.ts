import type { Job, RowPage, SourceRow } from '@sieve/contract';
import { shownOutcome } from './sieve/outcomes';
import { harness } from './testing/harness';

jest.setTimeout(60_000);

let server: Awaited<ReturnType<typeof harness>>;
beforeAll(async () => (server = await harness()));
afterAll(() => server.close());

const LIST = `Name;Position;Firma;E-Mail;Web
MAREN OAKHILL ★;Head of Quality;BRACKENFOLD DAIRY LTD;m.oakhill@brackenfold.example;www.brackenfold.example
Maren Oakhill;Head of Quality;Brackenfold Dairy;m.oakhill@brackenfold.example;
Tobias Lindqvist;Delivery Driver;Hollin Creamery;;hollin.example
"Torn;Owner
Aoife Brannagh;Quality Manager;Sorrel Hill;;sorrelhill.example
`;

const newJob = async () => (await server.call<Job>('POST', '/api/jobs', { name: 'Cheese makers' })).body.id;
const job = async (id: number) => (await server.call<Job>('GET', `/api/jobs/${id}`)).body;
const rows = async (id: number, query: string) =>
  (await server.call<RowPage>('GET', `/api/jobs/${id}/rows?${query}`)).body;
/** The outcome as its tables hold it. */
const outcome = (id: number) =>
  JSON.stringify(
    Object.values(shownOutcome(server.db, id)).map((table) =>
      server.db.outcomes.prepare(`SELECT * FROM ${table} ORDER BY 1, 2`).all(),
    ),
  );

const contactOf = (id: number) =>
  server.db.$client
    .prepare('SELECT max(r.id) FROM records r JOIN sources s ON s.id = r.source_id WHERE s.job_id = ?')
    .pluck()
    .get(id) as number;

test('a file becomes contacts; what could not be read is listed with its line', async () => {
  const id = await newJob();
  await server.bring(id, 'list.csv', LIST);
  const { summary } = await job(id);
  expect(summary).toMatchObject({ records: 4, merged: 1 });
  expect(summary!.steps.find((step) => step.id === 'screen')).toMatchObject({ came: 3, pass: 3 });
  const [source] = (await server.call<SourceRow[]>('GET', `/api/jobs/${id}/sources`)).body;
  expect(source).toMatchObject({ rows: 4, unread: 1, out: false });
  expect((await server.call('GET', `/api/jobs/${id}/sources/${source!.id}/issues`)).body).toEqual([
    { line: 5, code: 'quote-not-closed', kept: false, field: '', input: '"Torn | Owner' },
  ]);
  expect((await rows(id, 'step=screen&q=oakhill')).rows[0]).toMatchObject({
    name: 'Maren Oakhill',
    company: 'Brackenfold Dairy',
    domain: 'brackenfold.example',
    records: 2,
  });
});

test('the outcome is a cache: dropped and sifted again it is the same to the byte', async () => {
  const id = await newJob();
  await server.bring(id, 'list.csv', LIST);
  await server.call('POST', `/api/jobs/${id}/decisions`, { body: { kind: 'set-aside', recordIds: [contactOf(id)] } });
  await server.idle();
  const before = outcome(id);
  expect(before).toContain('by-hand');
  // As when the file of outcomes was deleted and the server is started again.
  for (const table of Object.values(shownOutcome(server.db, id))) server.db.outcomes.exec(`DROP TABLE ${table}`);
  expect((await rows(id, 'step=screen')).total).toBe(0);
  server.queue.resume();
  await server.idle();
  expect(outcome(id)).toBe(before);
});

test('every decision can be taken back, the whole file included', async () => {
  const id = await newJob();
  await server.bring(id, 'list.csv', LIST);
  const start = outcome(id);
  const [contact] = (await rows(id, 'step=screen&q=oakhill')).rows;
  const records = [contact!.id, contact!.id + 1];
  for (const body of [
    { kind: 'apart', recordIds: records },
    { kind: 'set-aside', recordIds: records.slice(0, 1) },
    { kind: 'edit', recordIds: records, field: 'title', value: 'Owner' },
  ]) {
    expect((await server.call('POST', `/api/jobs/${id}/decisions`, { body })).status).toBe(200);
  }
  await server.setUp(id, 'screen', {
    rules: [{ conditions: [{ field: 'title', values: ['driver'] }], fate: 'aside' }],
  });
  await server.idle();
  const { summary } = await job(id);
  expect([summary!.merged, summary!.steps.find((step) => step.id === 'screen')!.aside]).toEqual([0, 2]);
  for (let i = 0; i < 4; i++) await server.undo(id);
  await server.idle();
  expect(outcome(id)).toBe(start);
  await server.undo(id);
  await server.idle();
  expect((await job(id)).summary!.records).toBe(0);
  expect(await server.undo(id)).toBe(false);
});

test('two jobs at once do not mix', async () => {
  const [a, b] = [await newJob(), await newJob()];
  await Promise.all([
    server.bring(a, 'a.csv', LIST),
    server.bring(b, 'b.csv', 'Name,Email\nIdris Venn,idris@tidewell.example\n'),
  ]);
  expect((await job(a)).summary!.records).toBe(4);
  expect((await job(b)).summary!.records).toBe(1);
});

test('only this machine is answered', async () => {
  const get = (headers: Record<string, string>, method: 'GET' | 'POST' = 'GET') =>
    server.app.inject({ method, url: '/api/jobs', headers, payload: method === 'POST' ? { name: 'x' } : undefined });
  expect((await get({ host: 'evil.example' })).statusCode).toBe(403);
  expect((await get({ host: '127.0.0.1:4270', origin: 'http://evil.example' }, 'POST')).statusCode).toBe(403);
  expect((await get({ host: '127.0.0.1:4270', origin: 'http://127.0.0.1:9999' }, 'POST')).statusCode).toBe(403);
  const ok = await get({ host: '127.0.0.1:4270', origin: 'http://127.0.0.1:4270' }, 'POST');
  expect(ok.statusCode).toBe(200);
  expect(ok.headers['content-security-policy']).toContain("script-src 'self'");
  expect((await server.call<{ openapi: string }>('GET', '/api/docs')).body.openapi).toMatch(/^3\./);
});

test('what cannot be done says so with a code', async () => {
  expect((await server.call<{ code: string }>('GET', '/api/jobs/9999')).body.code).toBe('not-found');
  expect((await server.call<{ code: string }>('POST', '/api/jobs', { name: '' })).body.code).toBe('bad-request');
  const id = await newJob();
  expect(
    (await server.call<{ code: string }>('POST', `/api/jobs/${id}/runs`, { step: 'append-email' })).body.code,
  ).toBe('nothing-to-ask');
});
