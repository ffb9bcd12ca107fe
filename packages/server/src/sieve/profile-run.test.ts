import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { AnswerOf } from '@sieve/core';
import { exportLayout } from '@sieve/contract';
import { decide } from '../decisions/commands';
import { runExport } from '../exports/export-run';
import { addExport } from '../exports/store';
import { jobById } from '../jobs/store';
import type { Ask } from '../outside/ask';
import { ServiceDown } from '../outside/wrap/service-down';
import { testContext, testDb, testJob, testSource } from '../testing/fixtures';
import { askHandler } from './ask-run';
import { contactView, rowPage } from './rows';
import { runSift } from './sift-run';
import { NO_LISTS } from '@sieve/core';

const { db, dir } = testDb();
type Found = AnswerOf<'profiles'>['people'][number];
const listed = (link: string, name: string, company: string): Found => ({
  name,
  title: 'Owner',
  company,
  past: [],
  city: 'Wells',
  region: '',
  country: 'GB',
  website: '',
  link: `https://www.directory.example/p/${link}/`,
});
const PEOPLE = [
  listed('1', 'Maren Oakhill', 'Brackenfold'),
  listed('2', 'Idris Venn', 'Tidewell'),
  listed('3', 'Idris Venn', 'Tidewell'),
];
let isDown = false;
const asked: string[] = [];
const ask: Ask = (question) => {
  if (question.kind !== 'profiles') throw new Error(`not asked here: ${question.kind}`);
  if (isDown) return Promise.reject(new ServiceDown('Waymark', 'it answered 503'));
  asked.push(question.names[0]!);
  const people = PEOPLE.filter(({ name }) => question.names.includes(name));
  return Promise.resolve({ total: people.length, people });
};

test('profiles are found a portion at a time, an outage is no “none”, doubtful ones are judged, all leave with how sure', async () => {
  const job = testJob(db);
  const columns = [
    { name: 'Name', target: 'fullName' as const },
    { name: 'Firm', target: 'company' as const },
  ];
  testSource(db, job, columns, [
    ['Maren Oakhill', 'Brackenfold'],
    ['Idris Venn', 'Tidewell'],
    ['Rhona Parry', 'Arranmor'],
  ]);
  const setUp = (id: string, on: boolean, options: Record<string, unknown> = {}) =>
    decide(db, job, 'you', { kind: 'configure', step: { id, kind: id, on, options } }, 0);
  setUp('profile', true);
  setUp('append-email', false);
  setUp('verify', false);
  const sift = () => runSift(testContext<'sift'>(db, job, { kind: 'sift' }));
  const run = async (upTo?: number) => {
    const input = { kind: 'ask', step: 'profile', ...(upTo && { upTo }) } as const;
    const result = await askHandler(ask)(testContext<'ask'>(db, job, input));
    await sift();
    return result;
  };
  const counted = () => jobById(db, job)!.summary!.steps.find(({ id }) => id === 'profile')!;
  const rows = (fate: 'pass' | 'aside' | 'look' | 'waits') =>
    rowPage(db, job, { step: 'profile', fate, q: '', sort: 'id', desc: false, offset: 0, limit: 9 }).rows;

  await sift();
  expect(counted()).toMatchObject({ came: 3, waits: 3 });
  isDown = true;
  expect(await run()).toMatchObject({ settled: 0, down: [{ finder: 'Waymark', reason: 'it answered 503' }] });
  expect(counted()).toMatchObject({ waits: 3, aside: 0 });
  isDown = false;

  const [first] = rows('waits');
  expect(await run(first!.id)).toMatchObject({ contacts: 1, settled: 1 });
  expect(asked).toEqual(['Maren Oakhill']);
  expect(counted()).toMatchObject({ pass: 1, waits: 2 });
  await run();
  expect(counted()).toMatchObject({ pass: 1, look: 1, aside: 1, waits: 0, why: { 'no-profile-found': 1 } });

  const [doubtful] = rows('look');
  const { profiles } = contactView(db, job, doubtful!.id, NO_LISTS)!;
  expect(profiles.map(({ link, company }) => [link, company])).toEqual([
    ['directory.example/p/2', 'Tidewell'],
    ['directory.example/p/3', 'Tidewell'],
  ]);
  expect(profiles[0]!.speaks).toContainEqual({ field: 'company', level: 4 });
  decide(db, job, 'you', { kind: 'profile', recordIds: [doubtful!.id], link: profiles[1]!.link }, 0);
  await sift();
  expect(rows('pass').map(({ profile, profileSure }) => [profile, profileSure! > 0.95])).toEqual([
    ['directory.example/p/1', true],
    ['directory.example/p/3', true],
  ]);

  const heads = ['lastName', 'profile', 'profileSure', 'title'].map((field) => ({ field, heading: field }));
  const layout = exportLayout.parse({ columns: heads, verdicts: ['none'] });
  const exportId = addExport(db, job, layout, 0);
  await runExport(testContext<'export'>(db, job, { kind: 'export', exportId }, { dataDir: dir }));
  const lines = readFileSync(join(dir, 'exports', String(exportId), 'test-1.csv'), 'utf8')
    .split('\r\n')
    .slice(1, 3);
  expect(lines).toEqual([
    expect.stringMatching(/^Oakhill,directory.example\/p\/1,0\.9\d,Owner$/),
    'Venn,directory.example/p/3,1.00,Owner',
  ]);
});
