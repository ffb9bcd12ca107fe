import type {
  AskEstimate,
  DecisionRow,
  Job,
  SourceRow,
  Inspection,
  SuppressionRow,
  ContactGroup,
} from '@sieve/contract';
import { MAIL_OUT } from '@sieve/core';
import { harness } from '../testing/harness';

jest.setTimeout(60_000);

let server: Awaited<ReturnType<typeof harness>>;
let job: number;
beforeAll(async () => {
  server = await harness();
  job = (await server.call<Job>('POST', '/api/jobs', { name: ' Cheese ', budgetCents: 500 })).body.id;
  await server.bring(
    job,
    'list.csv',
    [
      'Name,Title,Email,Website',
      'Maren Oakhill,Quality Manager,maren.oakhill@tidewell.example,',
      'Idris Venn,quality manager,,tidewell.example',
      'Aoife Corrie,Driver,aoife@arranmor.example,',
      ',,,',
      'Piers Farrow,Owner,"broken',
    ].join('\n'),
  );
});
afterAll(() => server.close());
const code = async (...given: Parameters<typeof server.call>) =>
  (await server.call<{ code: string }>(...given)).body.code;
const get = async <T>(path: string) => (await server.call<T>('GET', path)).body;

test('a job has a name without blanks around it; what is left out of a change stays', async () => {
  expect((await get<Job>(`/api/jobs/${job}`)).name).toBe('Cheese');
  const changed = await server.call<Job>('PATCH', `/api/jobs/${job}`, { note: 'Larkfell' });
  expect(changed.body).toMatchObject({ name: 'Cheese', note: 'Larkfell', budgetCents: 500 });
  expect(await code('PATCH', `/api/jobs/${job}`, { budgetCents: -1 })).toBe('bad-request');
  expect(await code('PATCH', '/api/jobs/999', { note: 'x' })).toBe('not-found');
  // Raised from what it was when it was read, not from what somebody else has made of it since.
  expect(await code('PATCH', `/api/jobs/${job}`, { budgetCents: 700, was: { budgetCents: 400 } })).toBe(
    'changed-meanwhile',
  );
  expect((await get<Job>(`/api/jobs/${job}`)).budgetCents).toBe(500);
});

test('which columns leave stands with the job, can be taken back, and is what the next job begins with', async () => {
  const made = async (client: string) =>
    (await server.call<Job>('POST', '/api/jobs', { name: `Columns for ${client}`, client })).body;
  const first = await made('Larkfell');
  expect(first.columns).toEqual(MAIL_OUT);
  const columns = [
    { field: 'email', heading: 'E-mail' },
    { field: 'own:Stand', heading: 'Stand' },
  ];
  const change = { columns, was: { columns: MAIL_OUT } };
  expect((await server.call<Job>('PATCH', `/api/jobs/${first.id}`, change)).body.columns).toEqual(columns);
  expect(await code('PATCH', `/api/jobs/${first.id}`, change)).toBe('changed-meanwhile');
  expect((await made('Another')).columns).toEqual([columns[0]]);
  expect((await made('Larkfell')).columns).toEqual(columns);
  const [decision] = await get<DecisionRow[]>(`/api/decisions?subject=job&subjectId=${first.id}`);
  await server.call('POST', `/api/decisions/${decision!.id}`, { undone: true });
  expect((await get<Job>(`/api/jobs/${first.id}`)).columns).toEqual(MAIL_OUT);
});

test('a source says how many rows came and which did not', async () => {
  const [source] = await get<SourceRow[]>(`/api/jobs/${job}/sources`);
  expect(source).toMatchObject({ name: 'list.csv', rows: 3, out: false });
  expect(source!.unread).toBeGreaterThan(0);
  const issues = await get<{ line: number; code: string }[]>(`/api/jobs/${job}/sources/${source!.id}/issues`);
  expect(issues.map(({ line }) => line)).toContain(6);
  expect(await get(`/api/jobs/999/sources/${source!.id}/issues`)).toEqual([]);
});

test('titles are grouped whatever their capitals; a group that goes, goes whole', async () => {
  const titles = () => get<ContactGroup[]>(`/api/jobs/${job}/groups?step=screen&by=title`);
  expect((await titles()).map(({ count, fate }) => [count, fate])).toEqual([
    [2, ''],
    [1, ''],
  ]);
  const body = { kind: 'group', by: 'title', value: 'QUALITY MANAGER', fate: 'aside' };
  const group = await server.call<DecisionRow>('POST', `/api/jobs/${job}/decisions`, { body });
  await server.idle();
  expect((await titles())[0]).toMatchObject({ count: 2, aside: 2, fate: 'aside' });
  await server.call('POST', `/api/decisions/${group.body.id}`, { undone: true });
  await server.idle();
  expect((await titles())[0]).toMatchObject({ aside: 0, fate: '' });
});

test('decisions are listed newest first and are taken back in any order', async () => {
  const decide = async (recordId: number) =>
    (
      await server.call<{ id: number }>('POST', `/api/jobs/${job}/decisions`, {
        body: { kind: 'set-aside', recordIds: [recordId] },
      })
    ).body.id;
  const first = await decide(1);
  const second = await decide(2);
  await server.call('POST', `/api/decisions/${first}`, { undone: true });
  await server.idle();
  const rows = await get<DecisionRow[]>(`/api/decisions?subject=job&subjectId=${job}`);
  expect(rows.slice(0, 2).map(({ id, author, undoneAt }) => [id, author, undoneAt !== null])).toEqual([
    [second, 'you', false],
    [first, 'you', true],
  ]);
  const summary = async () =>
    (await get<Job>(`/api/jobs/${job}`)).summary!.steps.find(({ id }) => id === 'screen')!.aside;
  expect(await summary()).toBe(1);
  await server.call('POST', `/api/decisions/${second}`, { undone: true });
  await server.idle();
  expect(await summary()).toBe(0);
  expect(await code('POST', `/api/decisions/9999`, { undone: true })).toBe('not-found');
});

test('a change of the brief is a decision too: taken back by its number, unless it was changed again since', async () => {
  const patch = (change: object) => server.call('PATCH', `/api/jobs/${job}`, change);
  const last = async () => (await get<DecisionRow[]>(`/api/decisions?subject=job&subjectId=${job}`))[0]!;
  await patch({ budgetCents: 700 });
  const first = await last();
  expect(first.body).toEqual({ kind: 'brief', before: { budgetCents: 500 }, after: { budgetCents: 700 } });
  await patch({ budgetCents: 800 });
  const second = await last();
  expect(await code('POST', `/api/decisions/${first.id}`, { undone: true })).toBe('not-undoable');
  for (const [{ id }, undone, budget] of [
    [second, true, 700],
    [first, true, 500],
    [first, false, 700],
  ] as const) {
    await server.call('POST', `/api/decisions/${id}`, { undone });
    expect((await get<Job>(`/api/jobs/${job}`)).budgetCents).toBe(budget);
  }
  await server.call('POST', `/api/decisions/${first.id}`, { undone: true });
});

test('a step is set up upon what was read of it; set up by somebody else meanwhile, nothing is changed', async () => {
  const sieve = (await get<Job>(`/api/jobs/${job}`)).sieve;
  const was = sieve.find(({ id }) => id === 'screen')!;
  const step = { ...was, options: { ...was.options, atMostPerCompany: 1 } };
  const first = await server.call<{ job: Job; decision: DecisionRow }>('POST', `/api/jobs/${job}/steps`, { step, was });
  expect(first.body.job.sieve.find(({ id }) => id === 'screen')).toEqual(step);
  const late = { step: { ...was, options: { ...was.options, atMostPerCompany: 2 } }, was };
  expect(await code('POST', `/api/jobs/${job}/steps`, late)).toBe('changed-meanwhile');
  expect(await code('POST', `/api/jobs/${job}/steps`, { step: { ...step, kind: 'sixth' }, was: step })).toBe(
    'bad-request',
  );
  await server.call('POST', `/api/decisions/${first.body.decision.id}`, { undone: true });
  expect((await get<Job>(`/api/jobs/${job}`)).sieve).toEqual(sieve);
  await server.idle();
});

test('what is no decision is refused', async () => {
  for (const body of [
    { kind: 'set-aside', recordIds: [] },
    { kind: 'set-aside', recordIds: ['1'] },
    { kind: 'edit', recordIds: [1], field: 'shoe', value: '9' },
    { kind: 'delete', recordIds: [1] },
  ])
    expect(await code('POST', `/api/jobs/${job}/decisions`, { body })).toBe('bad-request');
});

test('the estimate says what the budget leaves; verifying what does not wait is refused', async () => {
  const estimate = await get<AskEstimate>(`/api/jobs/${job}/estimate`);
  expect(estimate).toMatchObject({ leftCents: 500, mostEachCents: 0, finders: [], cost: { mostCents: 0 } });
  expect(estimate.contacts).toBe(
    (await get<Job>(`/api/jobs/${job}`)).summary!.steps.find(({ id }) => id === 'append-email')!.waits,
  );
  const empty = (await server.call<Job>('POST', '/api/jobs', { name: 'Empty' })).body.id;
  expect(await code('POST', `/api/jobs/${empty}/runs`, { step: 'verify' })).toBe('nothing-to-ask');
  expect(await code('POST', `/api/jobs/${empty}/runs`, { kind: 'sift' })).toBe('bad-request');
});

test('who is named is suppressed in all jobs until the day it ends; what names nobody is given back', async () => {
  const text = 'Maren.Oakhill@Tidewell.example; @arranmor.example\nnobody';
  const { body } = await server.call('POST', '/api/suppressions', { text, why: 'customer' });
  expect(body).toEqual({ added: 2, known: 0, refused: ['nobody'] });
  expect((await server.call('POST', '/api/suppressions', { text })).body).toMatchObject({ added: 0, known: 2 });
  await server.idle();
  const aside = async () =>
    (await get<Job>(`/api/jobs/${job}`)).summary!.steps.find(({ id }) => id === 'screen')!.why['suppressed'] ?? 0;
  expect(await aside()).toBe(2);
  const rows = await get<SuppressionRow[]>('/api/suppressions');
  expect(rows.map(({ value, kind, why }) => [value, kind, why]).sort()).toEqual([
    ['arranmor.example', 'domain', 'customer'],
    ['maren.oakhill@tidewell.example', 'email', 'customer'],
  ]);
  const remove = async (key: string) => {
    const headers = { host: '127.0.0.1' };
    await server.app.inject({ method: 'DELETE', url: `/api/suppressions?key=${encodeURIComponent(key)}`, headers });
    await server.idle();
  };
  await remove('domain:arranmor.example');
  expect(await aside()).toBe(1);
  await server.call('POST', '/api/suppressions', { text: 'arranmor.example', until: Date.now() - 1000 });
  await server.idle();
  expect(await aside()).toBe(1);
  await remove('domain:arranmor.example');
});

test('a file names who must not be contacted, by the columns that it has', async () => {
  const file =
    'Name,Company,E-mail\nMaren Oakhill,Tidewell,maren.oakhill@tidewell.example\nOluchi Venn,Arranmor,\n,,\n,,x\n';
  const { body: upload } = await server.call<{ id: string }>('POST', '/api/uploads?name=customers.csv', file);
  const { body: found } = await server.call<Inspection>(
    'POST',
    `/api/uploads/${upload.id}/inspect?name=customers.csv`,
    {
      jobId: null,
    },
  );
  const { name, format, mapping: columns } = found;
  const body = { uploadId: upload.id, name, format, columns, why: 'with a colleague' };
  expect((await server.call('POST', '/api/suppressions/file', body)).body).toEqual({ added: 2, known: 1, nameless: 1 });
  const rows = await get<SuppressionRow[]>('/api/suppressions');
  expect(
    rows.filter(({ source }) => source === 'customers.csv').map(({ kind, value, why }) => [kind, value, why]),
  ).toEqual([
    ['person', 'Maren Oakhill, Tidewell', 'with a colleague'],
    ['person', 'Oluchi Venn, Arranmor', 'with a colleague'],
  ]);
  await server.idle();
});

test('what was spent is told by day', async () => {
  const day = 86_400_000;
  const add = server.db.$client.prepare(
    'INSERT INTO charges (job_id, who, question, cents, reason, at) VALUES (?, ?, ?, ?, ?, ?)',
  );
  for (const [i, at] of [Date.now(), Date.now(), Date.now() - 40 * day].entries())
    add.run(job, 'lantern', `q${i}`, 15, 'test', at);
  expect(await get('/api/spend')).toEqual([{ day: new Date().toISOString().slice(0, 10), cents: 30, bought: 2 }]);
  expect((await get<Job>(`/api/jobs/${job}`)).spentCents).toBe(45);
});
