import Database from 'better-sqlite3';
import { copyFileSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ANY_AGE, questionKey, weigher, type Question, type Weights } from '@sieve/core';
import { settings } from '@sieve/contract';
import { decisionRows, standingDecisions } from '../decisions/store';
import { jobById } from '../jobs/store';
import { factsAt } from '../outside/facts';
import { remakeRegister } from '../register/remake';
import { companyPage, rowPage } from '../sieve/rows';
import { runSift } from '../sieve/sift-run';
import { jobsToSift } from '../sieve/outcomes';
import { sourceRows } from '../sources/store';
import { searchView } from '../searches/store';
import { readSettings } from '../settings/store';
import { testContext } from '../testing/fixtures';
import { exportCounts } from '../exports/chosen';
import { exportLayout } from '@sieve/contract';
import { closeDb, openDb } from './open';

// testing/landed/sieve.db: the database of a data folder that an earlier version left, with one of everything.
const dir = mkdtempSync(join(tmpdir(), 'sieve-landed-'));
copyFileSync(join(__dirname, '../testing/landed/sieve.db'), join(dir, 'sieve.db'));
const landed = new Database(join(dir, 'sieve.db'));
// Nobody had said anything of a group in it: one that was taken back, as it was kept then.
landed
  .prepare(`INSERT INTO decisions (job_id, at, body, undone_at) VALUES (1, 1, ?, 2)`)
  .run(JSON.stringify({ kind: 'group', title: 'Cleaner', fate: 'aside' }));
// Nor had it asked a finder about anybody with an accent: one, as its question was named then.
const ZOE = JSON.stringify(['zoë', 'ní bhriain', 'brackenfold.example']);
landed
  .prepare(`INSERT INTO facts (kind, question, who, answer, asked_at) VALUES ('finder', ?, 'beacon', ?, 5)`)
  .run(ZOE, JSON.stringify({ email: null, lookup: 'z', priceCents: 7, pays: 'question' }));
landed
  .prepare(`INSERT INTO charges (job_id, who, question, cents, reason, at) VALUES (1, 'beacon', ?, 7, 'asked', 5)`)
  .run(ZOE);
landed.close();
const db = openDb(join(dir, 'sieve.db'), join(__dirname, '../../migrations'));
afterAll(() => {
  closeDb(db);
  rmSync(dir, { recursive: true, force: true });
});

test('a data folder of an earlier version comes along: steps, decisions, sources, facts, runs, what left', async () => {
  const job = jobById(db, 1)!;
  expect(job.sieve.map(({ id, on }) => [id, on])).toEqual([
    ['tidy', true],
    ['match', true],
    ['owner', false],
    ['screen', true],
    ['profile', false],
    ['company', false],
    ['append-email', true],
    ['verify', true],
    ['append-phone', false],
  ]);
  expect(job.sieve.find(({ id }) => id === 'screen')!.options).toMatchObject({
    atMostPerCompany: 2,
    rules: [{ words: ['assistant'] }],
  });
  expect(job.sieve.find(({ id }) => id === 'append-email')!.options).toEqual({ candidates: 4, finders: ['lantern'] });
  const decided = decisionRows(db, { subject: 'job', subjectId: 1 }, 100);
  expect(decided.every(({ author }) => author === 'you')).toBe(true);
  expect(standingDecisions(db, 1)).toHaveLength(job.decisions);
  expect(decided.find(({ body }) => body.kind === 'keep')!.body).toMatchObject({ step: 'append-email' });
  expect(decided.find(({ body }) => body.kind === 'group')!.body).toEqual({
    kind: 'group',
    by: 'title',
    value: 'Cleaner',
    fate: 'aside',
  });
  expect(sourceRows(db, 1).map(({ name, about, origin, rows }) => [name, about, origin.kind, rows])).toEqual([
    ['saved-leads.csv', 'people', 'table', 120],
    ['Quality in Ireland', 'people', 'directory', 0],
    ['Firms', 'companies', 'directory', 400],
  ]);
  expect(readSettings(db, settings.parse({})).currency).toBe('EUR');
  expect(searchView(db, 2)!.batchViews).toMatchObject([{ count: 400, pull: { came: 400 } }]);
  const kinds = db.$client.prepare(`SELECT DISTINCT input ->> '$.kind' FROM runs ORDER BY 1`).pluck().all();
  expect(kinds).toEqual(['ask', 'bring-in', 'export', 'pull', 'sift']);

  expect(jobsToSift(db)).toEqual([1]);
  remakeRegister(db);
  await runSift(testContext<'sift'>(db, 1, { kind: 'sift' }, { now: () => job.createdAt + 86_400_000 }));
  const { summary } = jobById(db, 1)!;
  // As the version before counted them, but for 400 rows that were companies and are.
  expect(summary).toMatchObject({
    records: 520,
    companies: 400,
    merged: 0,
    verdicts: { valid: 6, risky: 2, invalid: 2 },
  });
  expect(summary!.steps.find(({ id }) => id === 'screen')).toMatchObject({ came: 120, pass: 109, aside: 11 });
  const query = { step: 'screen', fate: 'pass', q: '', sort: 'id', desc: false, offset: 0, limit: 500 } as const;
  expect(rowPage(db, 1, query).rows.filter(({ title }) => title === 'Head of Quality').length).toBeGreaterThan(0);
  const firms = companyPage(db, 1, { q: '', offset: 0, limit: 5 });
  expect(firms.total).toBe(400);
  expect(firms.rows.every(({ company }) => company.name !== '' && company.domain !== '')).toBe(true);
  const layout = exportLayout.parse({
    columns: [{ field: 'email', heading: 'Email' }],
    verdicts: ['valid', 'risky', 'unknown', 'none'],
  });
  const { chosen, heldBack } = exportCounts(db, 1, layout, job.createdAt + 1);
  expect([chosen.length, heldBack.exportedBefore]).toEqual([0, 107]);
});

test('questions to finders that were named otherwise are the same questions still, and their charges theirs', () => {
  const question = { kind: 'finder', finder: 'beacon', firstName: 'ZOE', lastName: 'Ní-Bhriain' } as const;
  const asked: Question = { ...question, domain: 'brackenfold.example' };
  expect(factsAt(db, 6, ANY_AGE)(asked).fact).toMatchObject({ answer: { email: null }, askedAt: 5 });
  const charged = db.$client.prepare(`SELECT question FROM charges WHERE who = 'beacon'`).pluck();
  expect(charged.get()).toBe(questionKey(asked));
});

test('weights that were learned before kinds of pairs were told apart weigh as they did, older ones are learned anew', () => {
  const shown = (level: number) => ({
    fields: Array.from({ length: 9 }, () => Array.from({ length: 5 }, (_, l) => (l === level ? 0.8 : 0.05))),
    names: Array.from({ length: 25 }, () => 0.04),
  });
  const before = { m: [[1]], u: [[2]], prior: 0.2, same: shown(4), close: shown(3), strangers: shown(1), taught: null };
  const weights = [{ m: [[1]], u: [[2]] }, { ...before, closeShare: 0.25 }, null].map(
    (one) => one && JSON.stringify(one),
  );
  const kept = new Database(':memory:');
  kept.exec('CREATE TABLE jobs (weights text)');
  for (const one of weights) kept.prepare('INSERT INTO jobs VALUES (?)').run(one);
  kept.exec(readFileSync(join(__dirname, '../../migrations/0013_kinds_of_pairs.sql'), 'utf8'));
  const [oldest, old, none] = kept.prepare('SELECT weights FROM jobs').pluck().all() as (string | null)[];
  expect([oldest, none]).toEqual([null, null]);
  const now = JSON.parse(old!) as Weights;
  expect(now).toMatchObject({ m: [[1]], u: [[2]], kinship: 1, taught: null, compared: 0 });
  const { same, close, strangers } = weigher(now)([0, 0, 0, 0, 0, 4, 0, 0, 0]);
  expect(same).toBeCloseTo(0.2 * 0.8, 12);
  expect(close).toBeCloseTo(0.8 * 0.25 * 0.05, 12);
  expect(strangers).toBeCloseTo(0.8 * 0.75 * 0.05, 12);
  kept.close();
});
