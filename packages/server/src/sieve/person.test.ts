import type { PersonInFull, RowPage, VerdictCounts } from '@sieve/contract';
import type { Answer, PersonField, Question } from '@sieve/core';
import { keepFact } from '../outside/facts';
import { harness } from '../testing/harness';

jest.setTimeout(60_000);

let server: Awaited<ReturnType<typeof harness>>;
let job: number;
const link = 'https://www.people.example/p/hazel';
const head = 'Name,Title,Company,Website,Town,Profile\n';
beforeAll(async () => {
  server = await harness();
  job = (await server.call<{ id: number }>('POST', '/api/jobs', { name: 'Person' })).body.id;
  await server.setUp(job, 'append-email', { candidates: 1, finders: ['lantern'] });
  await server.bring(job, 'guild.csv', `${head}HAZEL THORNE,Cellar lead,Tidewell,tidewell.example,Wells,${link}\n`);
  await server.bring(job, 'show.csv', `${head}H. Thorne,Head of Quality,Tidewell,,Bala,${link}\n`);
});
afterAll(() => server.close());

const rows = async (of = job) =>
  (await server.call<RowPage>('GET', `/api/jobs/${of}/rows?step=tidy&fate=pass`)).body.rows;
const person = async () =>
  (await server.call<PersonInFull>('GET', `/api/jobs/${job}/people/${(await rows())[0]!.id}`)).body;
async function decide(body: object) {
  await server.call('POST', `/api/jobs/${job}/decisions`, { body });
  await server.idle();
}
const lineOf = ({ lines }: PersonInFull, field: PersonField) =>
  lines.find(({ fields }) => fields.includes(field))!.values;
const valuesOf = (person: PersonInFull, field: PersonField) =>
  lineOf(person, field).map(({ parts, stands, origins }) => [
    Object.values(parts).join(' '),
    stands,
    ...origins.map((from) => (from.kind === 'record' ? `${from.source} ${from.line}` : from.kind)),
  ]);

test('every value that could stand is shown, with the source, line and date it came from and what was done to it', async () => {
  const full = await person();
  expect(valuesOf(full, 'firstName')).toEqual([
    ['Hazel Thorne', true, 'guild.csv 2'],
    ['H. Thorne', false, 'show.csv 2'],
  ]);
  expect(valuesOf(full, 'company')).toEqual([['Tidewell', true, 'guild.csv 2', 'show.csv 2']]);
  const [first] = lineOf(full, 'lastName');
  expect(first!.changes).toContainEqual(
    expect.objectContaining({ is: 'Thorne', why: expect.arrayContaining(['capitals']) as string[] }),
  );
  expect(first!.origins[0]).toMatchObject({ kind: 'record', at: expect.any(Number) as number });
  expect(lineOf(full, 'phone')).toEqual([]);
});

test('another value is chosen with those that go with it, an empty field and a note are written, and each is taken back', async () => {
  const { contact } = await person();
  const [, show] = contact.recordIds as [number, number];
  await decide({ kind: 'choose', recordIds: contact.recordIds, recordId: show, field: 'city' });
  expect(valuesOf(await person(), 'city')).toEqual([
    ['Bala', true, 'show.csv 2', 'you'],
    ['Wells', false, 'guild.csv 2'],
  ]);
  await decide({ kind: 'edit', recordIds: contact.recordIds, field: 'note', value: 'Spoke of rind humidity' });
  expect(valuesOf(await person(), 'note')).toEqual([['Spoke of rind humidity', true, 'you']]);
  await server.undo(job);
  await server.undo(job);
  await server.idle();
  expect(valuesOf(await person(), 'note')).toEqual([]);
  expect(valuesOf(await person(), 'city')[0]).toEqual(['Wells', true, 'guild.csv 2']);
});

test('a value that was written over is chosen back where there is one record; who wrote a value that does not stand is not named', async () => {
  const alone = (await server.call<{ id: number }>('POST', '/api/jobs', { name: 'Alone' })).body.id;
  await server.bring(alone, 'one.csv', `${head}Idris Venn,Owner,Mosscross,,,\n`);
  const [row] = await rows(alone);
  const full = async () => (await server.call<PersonInFull>('GET', `/api/jobs/${alone}/people/${row!.id}`)).body;
  const say = async (body: object) => {
    const { status } = await server.call('POST', `/api/jobs/${alone}/decisions`, { body });
    await server.idle();
    return status;
  };
  await say({ kind: 'edit', recordIds: [row!.id], field: 'title', value: 'Chair' });
  expect(valuesOf(await full(), 'title')).toEqual([
    ['Chair', true, 'you'],
    ['Owner', false, 'one.csv 2'],
  ]);
  expect(await say({ kind: 'choose', recordIds: [row!.id], recordId: row!.id, field: 'title' })).toBe(200);
  expect(valuesOf(await full(), 'title')).toEqual([['Owner', true, 'one.csv 2', 'you']]);

  // Written in one of two merged records, whose value the merge does not take.
  const { contact } = await person();
  const [, show] = contact.recordIds as [number, number];
  await decide({ kind: 'edit', recordIds: [show], field: 'firstName', value: 'Z' });
  expect(valuesOf(await person(), 'firstName')[0]).toEqual(['Hazel Thorne', true, 'guild.csv 2']);
  await server.undo(job);
  await server.idle();
});

test('a bought address says who sold it, for how much and when; its verdict how old it is', async () => {
  const of = { finder: 'lantern', firstName: 'Hazel', lastName: 'Thorne', domain: 'tidewell.example' };
  const email = 'hthorne@tidewell.example';
  const at = Date.now() - 5 * 86_400_000;
  const facts: [Question, Answer][] = [
    [{ kind: 'mail-host', domain: of.domain }, { state: 'hosts', hosts: ['mx.tidewell.example'] } as never],
    [{ kind: 'catch-all', domain: of.domain }, { state: 'selective' }],
    [
      { kind: 'mailbox', email: 'hazel.thorne@tidewell.example' },
      { state: 'no-mailbox', code: 550 },
    ],
    [
      { kind: 'mailbox', email },
      { state: 'accepted', code: 250, by: 'touchstone', cents: 0 },
    ],
    [
      { kind: 'finder', ...of },
      { email, lookup: 'l7', priceCents: 15 },
    ],
    [{ kind: 'purchase', finder: 'lantern', lookup: 'l7', priceCents: 15 }, { bought: true }],
  ];
  for (const [question, answer] of facts)
    keepFact(server.db, question, answer, at, { jobId: job, reason: 'email', contact: 1 });
  await decide({ kind: 'set-aside', recordIds: [(await rows())[0]!.id] });
  await server.undo(job);
  await server.idle();
  const full = await person();
  const [bought, ...others] = lineOf(full, 'email');
  expect(bought).toEqual({
    parts: { email },
    stands: true,
    origins: [{ kind: 'finder', name: 'lantern', cents: 15, at }],
    changes: [],
  });
  // What else it could be; what the server does not know it could not.
  expect(others.map(({ origins }) => origins[0]!.kind)).toEqual(['pattern', 'pattern', 'pattern']);
  expect(others.map(({ parts }) => parts.email)).not.toContain('hazel.thorne@tidewell.example');
  const freshUntil = at + 90 * 86_400_000;
  expect(full.verdict).toEqual({ askedAt: at, freshUntil, by: 'touchstone' });
  const counts = (await server.call<VerdictCounts>('GET', `/api/jobs/${job}/verdict-counts`)).body;
  expect(counts.domains).toEqual([{ name: 'tidewell.example', valid: 1, risky: 0, invalid: 0, unknown: 0 }]);
  expect(counts.freshUntil.map((one) => one.count)).toEqual([1]);
  const late = counts.freshUntil[0]!.at - freshUntil;
  expect([late > 0, late <= 3_600_000]).toEqual([true, true]);
});

test('it is said which other jobs hold the same person, and what it left with', async () => {
  const other = (await server.call<{ id: number }>('POST', '/api/jobs', { name: 'Other' })).body.id;
  for (const step of ['append-email', 'verify']) await server.setUp(other, step, {}, false);
  await server.bring(other, 'again.csv', `${head}Hazel Thorne,Driver,Tidewell,,,${link}\n`);
  await server.call('POST', `/api/jobs/${other}/exports`, {
    columns: [{ field: 'lastName', heading: 'Last name' }],
    verdicts: ['none'],
  });
  await server.idle();
  const { jobs, exports } = await person();
  expect(jobs.map(({ jobId }) => jobId)).toEqual([job, other]);
  expect(exports).toMatchObject([{ jobId: other, files: [expect.stringContaining('.csv')] }]);
  expect((await server.call('GET', `/api/jobs/${job}/people/9999`)).status).toBe(404);
});
