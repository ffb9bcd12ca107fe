import { emptyPerson, type Person } from '@sieve/core';
import { harness } from '../testing/harness';
import { holdings } from './held';

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
    'Name,Email\nMaren Oakhill,m@tidewell.example\nIdris Venn,idris@arranmor.example\n',
  );
  await server.call('POST', '/api/suppressions', { text: 'brackenfold.example x@sorrel.example' });
  await server.idle();
});
afterAll(() => server.close());

const held = (job: number | null, values: Partial<Person>) => holdings(server.db, job)({ ...emptyPerson(), ...values });

test('somebody is held in this job, in another, or nowhere, by address', () => {
  expect(held(jobs[0], { email: 'm@tidewell.example' })).toBe('thisJob');
  expect(held(jobs[0], { email: 'idris@arranmor.example' })).toBe('otherJobs');
  expect(held(null, { email: 'm@tidewell.example' })).toBe('otherJobs');
  expect(held(jobs[0], { email: 'new@tidewell.example' })).toBe('fresh');
  expect(held(jobs[0], {})).toBe('fresh');
});

test('by profile link too, and either is enough', () => {
  const profile = 'people.example/in/maren';
  expect(held(jobs[0], { profile })).toBe('thisJob');
  expect(held(jobs[1], { profile, email: 'other@x.example' })).toBe('otherJobs');
  expect(held(jobs[1], { email: 'idris@arranmor.example', profile: 'people.example/in/idris' })).toBe('thisJob');
});

test('who is suppressed is told before anything else, by address or domain', () => {
  expect(held(jobs[0], { email: 'x@sorrel.example' })).toBe('suppressed');
  expect(held(jobs[0], { email: 'y@sorrel.example' })).toBe('fresh');
  expect(held(jobs[0], { domain: 'brackenfold.example', email: 'm@tidewell.example' })).toBe('suppressed');
});
