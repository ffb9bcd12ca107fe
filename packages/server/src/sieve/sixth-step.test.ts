import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { STEPS, waiting, type Step } from '@sieve/core';
import { exportLayout } from '@sieve/contract';
import * as z from 'zod';
import { decide } from '../decisions/commands';
import { runExport } from '../exports/export-run';
import { addExport } from '../exports/store';
import { jobById } from '../jobs/store';
import type { Ask } from '../outside/ask';
import { testContext, testDb, testJob, testSource } from '../testing/fixtures';
import { askHandler } from './ask-run';
import { rowPage } from './rows';
import { runSift } from './sift-run';

/** A step as somebody would add it: only firms whose domain takes mail go on. */
const takesMail: Step<{ strict: boolean }> = {
  kind: 'takes-mail',
  options: z.object({ strict: z.boolean().default(true) }),
  about: 'contact',
  after: ['screen'],
  optional: true,
  asks: true,
  prepare:
    (_all, { strict }, { facts }) =>
    ({ person }) => {
      const host = facts({ kind: 'mail-host', domain: person.domain });
      if (!host.fact) return waiting(host);
      return strict && host.fact.answer.state !== 'hosts'
        ? { state: 'aside', code: 'takes-no-mail', why: { domain: person.domain } }
        : null;
    },
};
STEPS.push(takesMail as unknown as Step);

const { db, dir } = testDb();

test('a sixth step is sifted, asked, shown and exported, and can be set up', async () => {
  const job = testJob(db);
  const columns = [
    { name: 'Name', target: 'fullName' as const },
    { name: 'Web', target: 'website' as const },
  ];
  const rows = ['brackenfold', 'tidewell', 'arranmor'].map((firm) => [`Maren ${firm}`, `${firm}.example`]);
  testSource(db, job, columns, rows);
  for (const id of ['append-email', 'verify'])
    decide(db, job, 'you', { kind: 'configure', step: { id, kind: id, on: false, options: {} } }, 0);
  const sift = () => runSift(testContext<'sift'>(db, job, { kind: 'sift' }));
  const page = (fate: 'pass' | 'aside' | 'waits') =>
    rowPage(db, job, { step: 'takes-mail', fate, q: '', sort: 'id', desc: false, offset: 0, limit: 100 });
  const counted = () => jobById(db, job)!.summary!.steps.find(({ id }) => id === 'takes-mail');

  await sift();
  expect(page('waits').total).toBe(3);
  const ask: Ask = async (question) =>
    'domain' in question && question.domain === 'tidewell.example'
      ? { state: 'none' }
      : { state: 'hosts', hosts: ['mx.example'] };
  const input = { kind: 'ask', step: 'takes-mail' } as const;
  expect(await askHandler(ask)(testContext<'ask'>(db, job, input))).toMatchObject({ contacts: 3, settled: 3 });
  await sift();
  expect(page('aside').rows.map(({ domain, fate }) => [domain, fate])).toEqual([
    [
      'tidewell.example',
      { step: 'takes-mail', state: 'aside', code: 'takes-no-mail', why: { domain: 'tidewell.example' } },
    ],
  ]);
  expect(counted()).toEqual({
    id: 'takes-mail',
    came: 3,
    pass: 2,
    aside: 1,
    look: 0,
    waits: 0,
    why: { 'takes-no-mail': 1 },
  });

  const layout = exportLayout.parse({ columns: [{ field: 'domain', heading: 'Domain' }], verdicts: ['none'] });
  const exportId = addExport(db, job, layout, 0);
  await runExport(testContext<'export'>(db, job, { kind: 'export', exportId }, { dataDir: dir }));
  expect(
    readFileSync(join(dir, 'exports', String(exportId), 'test-1.csv'), 'utf8')
      .split('\r\n')
      .slice(1, 3),
  ).toEqual(['arranmor.example', 'brackenfold.example']);

  const step = { id: 'takes-mail', kind: 'takes-mail', on: true, options: { strict: false } };
  decide(db, job, 'you', { kind: 'configure', step }, 0);
  await sift();
  expect(counted()).toMatchObject({ pass: 3, aside: 0 });
});
