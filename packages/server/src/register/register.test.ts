import type { DirectoryRow } from '@sieve/contract';
import { emptyPerson, personKeys, type Person } from '@sieve/core';
import { harness } from '../testing/harness';
import { heldRows } from './held-rows';
import { keyHash } from './hash';
import { feedMade, madeElsewhere } from './made';
import { remakeRegister } from './remake';
import { createRegister, feed, goneBefore, standingOf } from './register';

jest.setTimeout(60_000);

let server: Awaited<ReturnType<typeof harness>>;
let jobs: [number, number];
beforeAll(async () => {
  server = await harness();
  const made = [];
  for (const name of ['A', 'B']) made.push((await server.call<{ id: number }>('POST', '/api/jobs', { name })).body.id);
  jobs = made as [number, number];
  await server.bring(
    jobs[0],
    'a.csv',
    'Name,Email,Profile link\nMaren Oakhill,m@tidewell.example,https://people.example/in/maren\n',
  );
  await server.bring(
    jobs[1],
    'b.csv',
    'Name,Company,Website,Email,Tel\nMaren Oakhill,,,m@tidewell.example,\nIdris Venn,Arranmor,arranmor.example,,0113 496 0417\n',
  );
});
afterAll(() => server.close());

const person = (values: Partial<Person>) => ({ ...emptyPerson(), ...values });
const standing = (job: number | null, values: Partial<Person>) =>
  standingOf(server.db.register, job)(personKeys(person(values)));
const row = (values: Partial<DirectoryRow>): DirectoryRow => ({
  id: 'people-1',
  name: '',
  title: '',
  company: '',
  place: '',
  link: '',
  found: {},
  ...values,
});

test('somebody is held in this job, in another, or nowhere, by whatever they are known by', () => {
  expect(standing(jobs[0], { email: 'm@tidewell.example' })).toBe('thisJob');
  expect(standing(jobs[1], { profile: 'people.example/in/maren' })).toBe('otherJobs');
  expect(standing(null, { email: 'm@tidewell.example' })).toBe('otherJobs');
  expect(standing(jobs[0], { email: 'new@tidewell.example' })).toBe('fresh');
  const idris = { firstName: 'Idris', lastName: 'Venn' };
  expect(standing(jobs[0], { ...idris, domain: 'arranmor.example' })).toBe('otherJobs');
  expect(standing(jobs[1], { ...idris, company: 'ARRANMOR' })).toBe('thisJob');
  expect(standing(jobs[1], { ...idris, phone: '+441134960417' })).toBe('thisJob');
  // A switchboard and a name alone are many people's.
  expect(standing(jobs[1], { firstName: 'Aoife', lastName: 'Corrie', phone: '+441134960417' })).toBe('fresh');
  expect(standing(jobs[1], idris)).toBe('fresh');
  expect(standing(jobs[0], {})).toBe('fresh');
});

test('rows of a directory are known by the same keys, companies by theirs', () => {
  const rows = [
    row({ id: 'people-1', name: 'Idris Venn', found: { website: 'www.arranmor.example' } }),
    row({ id: 'people-2', name: 'Aoife Corrie', link: 'https://people.example/in/maren/' }),
    row({ id: 'people-3', name: 'Aoife Corrie', company: 'Arranmor' }),
    row({ id: 'companies-4', company: 'Arranmor', found: { website: 'arranmor.example' } }),
  ];
  expect([...heldRows(server.db, rows)]).toEqual(['people-1', 'people-2']);
});

test('a source taken out is no longer held, and is when it is in again', async () => {
  const brought = server.db.$client.prepare(`SELECT id FROM decisions WHERE subject_id = ?`).pluck().get(jobs[1]);
  for (const [undone, expected] of [
    [true, 'fresh'],
    [false, 'thisJob'],
  ] as const) {
    await server.call('POST', `/api/decisions/${Number(brought)}`, { undone });
    await server.idle();
    expect(standing(jobs[1], { firstName: 'Idris', lastName: 'Venn', domain: 'arranmor.example' })).toBe(expected);
  }
});

test('who left is known over all jobs, and the register can be made again', async () => {
  const layout = { columns: [{ field: 'email', heading: 'Email' }], verdicts: ['valid', 'risky', 'unknown', 'none'] };
  for (const job of jobs) for (const id of ['verify', 'append-email']) await server.setUp(job, id, {}, false);
  await server.idle();
  expect((await server.call('POST', `/api/jobs/${jobs[0]}/exports`, layout)).status).toBe(200);
  await server.idle();
  const before = await server.call<{ rows: number }>('POST', `/api/jobs/${jobs[1]}/exports/preview`, layout);
  const maren = personKeys(person({ email: 'm@tidewell.example' }));
  const isGone = () => goneBefore(server.db.register)(maren);
  expect([isGone(), before.body.rows]).toEqual([true, 1]);
  const { register } = server.db;
  register.exec('DROP TABLE held; DROP TABLE gone; DROP TABLE made; DROP TABLE fed');
  createRegister(register);
  expect(isGone()).toBe(false);
  remakeRegister(server.db);
  server.queue.resume();
  await server.idle();
  expect([isGone(), standing(jobs[0], { email: 'm@tidewell.example' })]).toEqual([true, 'thisJob']);
});

test('what is fed as a difference is what is fed whole', () => {
  const { register } = server.db;
  const place = { job: 900, about: 'people' as const };
  const at = (keys: string[]) => keys.map((key) => standingOf(register, 900)([key]));
  feed(register, place, null, [
    { item: 1, keys: ['a', 'b'] },
    { item: 2, keys: ['b', 'c'] },
  ]);
  feed(register, place, [{ item: 1, keys: ['a', 'b'] }], [{ item: 3, keys: ['d'] }]);
  expect(at(['a', 'b', 'c', 'd'])).toEqual(['fresh', 'thisJob', 'thisJob', 'thisJob']);
  feed(register, place, null, []);
  expect(at(['a', 'b', 'c', 'd'])).toEqual(['fresh', 'fresh', 'fresh', 'fresh']);
});

test('how addresses are made is known by place over all jobs but one’s own', () => {
  const { register } = server.db;
  const owner = {
    ...person({ firstName: 'Maren', lastName: 'Oakhill', country: 'IE' }),
    email: 'moakhill@made.example',
  };
  feedMade(register, 901, [owner, { ...owner, email: 'zz@made.example' }]);
  const counts = (place: string, job = 0) => [...madeElsewhere(register, job)(place)];
  expect(counts('made.example')).toEqual([
    ['flast', 1],
    ['other', 1],
  ]);
  expect(counts('country IE')).toEqual(counts('made.example'));
  expect(counts('made.example', 901)).toEqual([]);
  feedMade(register, 901, [owner, { ...owner, lastName: 'Oak', email: 'moak@made.example' }]);
  expect(counts('made.example')).toEqual([['flast', 2]]);
});

test('keys of half a million people are told from each other', () => {
  const hashes = new Set<bigint>();
  for (let i = 0; i < 500_000; i++) hashes.add(keyHash(`email:m.oakhill${i}@firm${i % 977}.example`));
  expect(hashes.size).toBe(500_000);
});
