import type { AskEstimate, ChargeRow, DecisionRow, Job, LedgerView } from '@sieve/contract';
import { settings } from '@sieve/contract';
import { dayOf } from '@sieve/core';
import { decide } from '../decisions/commands';
import { keepFact } from '../outside/facts';
import { runSift } from '../sieve/sift-run';
import { testContext, testSource } from '../testing/fixtures';
import { harness } from '../testing/harness';
import { budgetFor } from './budget';

let server: Awaited<ReturnType<typeof harness>>;
beforeAll(async () => (server = await harness()));
afterAll(() => server.close());
const at = Date.UTC(2026, 10, 30, 23, 30);

/** Buys a number of addresses at a price. */
function buy(jobId: number, who: string, cents: number, count: number, time: number, name = who) {
  for (let n = 0; n < count; n++)
    keepFact(
      server.db,
      { kind: 'purchase', finder: who, lookup: `${name} ${n} ${time}`, priceCents: cents },
      { bought: true },
      time,
      { jobId, reason: 'valid address', contact: n + 1 },
    );
}
const get = async <T>(path: string) => (await server.call<T>('GET', path)).body;
const ledger = (query = '') => get<LedgerView>(`/api/ledger?month=2026-12${query}`);
const newJob = async (name: string, folder = '') =>
  (await server.call<Job>('POST', '/api/jobs', { name, folder, budgetCents: 1000 })).body.id;

test('every cent of a month: the sums are those of the facts, to the cent, whatever they are grouped by', async () => {
  const [one, other] = [await newJob('One'), await newJob('Other')];
  // Of a person in Kolkata the last half hour of November in UTC is December.
  await server.call('PUT', '/api/settings', await withSettings({ timeZone: 'Asia/Kolkata' }));
  buy(one, 'lantern', 15, 7, at);
  buy(one, 'candle', 4, 120, at + 86_400_000);
  buy(other, 'lantern', 15, 3, at + 2 * 86_400_000);
  buy(other, 'lantern', 15, 5, Date.UTC(2026, 10, 3));
  const view = await ledger();
  const cents = 7 * 15 + 120 * 4 + 3 * 15;
  expect([view.all, view.before]).toEqual([
    { cents, charges: 130, refunds: 0 },
    { cents: 75, charges: 5, refunds: 0 },
  ]);
  const sum = (of: { cents: number }[]) => of.reduce((total, one) => total + one.cents, 0);
  expect([sum(view.services), sum(view.jobs), sum(view.days)]).toEqual([cents, cents, cents]);
  expect(view.days.map(({ day, who }) => `${day} ${who}`)).toEqual([
    '2026-12-01 lantern',
    '2026-12-02 candle',
    '2026-12-03 lantern',
  ]);
  expect([view.rows.length, view.rows[0]!.jobName]).toEqual([100, 'Other']);
  const rest = await ledger('&offset=100');
  const all = [...view.rows, ...rest.rows];
  expect([all.length, new Set(all.map(({ id }) => id)).size, sum(all)]).toEqual([130, 130, cents]);
  expect((await ledger(`&who=lantern&jobId=${one}`)).asked).toEqual({ cents: 105, charges: 7, refunds: 0 });

  const file = (await server.app.inject({ url: '/api/ledger/file?month=2026-12', headers: { host: '127.0.0.1' } }))
    .body;
  const amounts = file
    .trim()
    .split('\r\n')
    .slice(1)
    .map((line) => Number(line.split(',').at(-4)));
  expect([amounts.length, Math.round(100 * amounts.reduce((total, amount) => total + amount, 0))]).toEqual([
    130,
    cents,
  ]);
});

test('a plan is paid once a month, whatever is used of it, and stands in every sum but those of jobs', async () => {
  const job = await newJob('With a plan');
  const month = Date.UTC(2027, 0, 20);
  for (const n of [1, 2, 3])
    keepFact(
      server.db,
      { kind: 'purchase', finder: 'beacon', lookup: `plan ${n}`, priceCents: 28 },
      n < 3 ? { bought: true, cents: 0, credits: 1 } : { bought: true },
      month + n,
      { jobId: job, reason: 'valid address', contact: n, plan: { credits: 2, cents: 600, month: '2027-01' } },
    );
  const { all, plans, services, jobs, days, rows } = await get<LedgerView>('/api/ledger?month=2027-01');
  expect(plans).toEqual([{ who: 'beacon', credits: 2, cents: 600, at: month + 1, used: 2 }]);
  expect([all, services]).toEqual([
    { cents: 628, charges: 3, refunds: 0 },
    [{ who: 'beacon', cents: 628, charges: 3, refunds: 0 }],
  ]);
  expect([jobs[0]!.cents, days, rows.map(({ cents, credits }) => [cents, credits])]).toEqual([
    28,
    [{ day: '2027-01-20', who: 'beacon', cents: 628 }],
    [
      [28, 0],
      [0, 1],
      [0, 1],
    ],
  ]);
  const { body } = await server.app.inject({
    url: '/api/ledger/file?month=2027-01',
    headers: { host: '127.0.0.1' },
  });
  expect(body.trim().split('\r\n').at(-1)).toMatch(/,"?Plan of 2027-01, 2 credits"?,,6\.00,/);
});

test('what is given back is spent again, at most what was paid, and taken back with the decision', async () => {
  const job = await newJob('Refunds');
  buy(job, 'beacon', 28, 1, at, 'refund');
  const charge = async () => (await ledger('&who=beacon')).rows.find(({ refundOf }) => refundOf === null) as ChargeRow;
  const { id: chargeId } = await charge();
  const giveBack = (cents: number) =>
    server.call<{ code?: string }>('POST', '/api/ledger/refunds', { chargeId, cents, why: 'bounced' });
  const spent = async () => (await get<Job>(`/api/jobs/${job}`)).spentCents;
  expect((await giveBack(20)).status).toBe(200);
  expect((await giveBack(9)).body.code).toBe('refund-too-large');
  expect([await spent(), (await charge()).givenBack]).toEqual([8, 20]);
  const [decision] = await get<DecisionRow[]>('/api/decisions?subject=settings&subjectId=0');
  expect(decision!.body.kind).toBe('refund');
  const undo = (undone: boolean) => server.call('POST', `/api/decisions/${decision!.id}`, { undone });
  await undo(true);
  expect([await spent(), (await charge()).givenBack]).toEqual([28, 0]);
  expect((await giveBack(28)).status).toBe(200);
  // What it would give back is no longer there.
  expect((await undo(false)).status).toBe(409);
  expect(await spent()).toBe(0);
});

test('the least that is left of job, folder and month is what a job may spend', async () => {
  const [one, other] = [await newJob('In folder', 'Autumn'), await newJob('Beside it', 'Autumn')];
  const left = (budgets: object) =>
    budgetFor(server.db, one, settings.parse({ timeZone: 'Asia/Kolkata', budgets }))(at + 3_600_000);
  buy(one, 'lantern', 15, 2, at, 'folder one');
  buy(other, 'lantern', 15, 4, at, 'folder other');
  expect(left({})).toEqual({ of: 'job', cents: 970 });
  expect(left({ folders: [{ folder: 'Autumn', cents: 200 }] })).toEqual({ of: 'folder', cents: 110 });
  const { all } = await ledger();
  expect(left({ monthCents: all.cents + 12, folders: [{ folder: 'Autumn', cents: 200 }] })).toEqual({
    of: 'month',
    cents: 12,
  });
  expect(left({ monthCents: 1 })).toEqual({ of: 'month', cents: 0 });
});

test('what looking up those who wait would likely cost is said with the month, and what a job has left by itself', async () => {
  const job = await newJob('Waits');
  const lantern = { id: 'lantern', name: 'Lantern', url: 'http://127.0.0.1:1', key: '', priceCents: 15, perSecond: 1 };
  await server.call('PUT', '/api/settings', await withSettings({ finders: [lantern] }));
  const step = { id: 'append-email', kind: 'append-email', on: true, options: { finders: ['lantern'] } };
  decide(server.db, job, 'you', { kind: 'configure', step }, 0);
  const columns = [
    { name: 'Name', target: 'fullName' as const },
    { name: 'Web', target: 'website' as const },
  ];
  const rows = Array.from({ length: 40 }, (_, n) => [
    `Maren Oak${String.fromCharCode(97 + (n % 26))}n`,
    `f${n}.example`,
  ]);
  testSource(server.db, job, columns, rows);
  await runSift(testContext<'sift'>(server.db, job, { kind: 'sift' }));
  const { cost } = await get<AskEstimate>(`/api/jobs/${job}/estimate?of=addresses`);
  expect(cost.likelyCents).toBeGreaterThan(0);
  const month = dayOf(Date.now(), 'Asia/Kolkata').slice(0, 7);
  const { planned } = await get<LedgerView>(`/api/ledger?month=${month}`);
  expect([planned, (await get<LedgerView>('/api/ledger?month=2020-01')).planned]).toEqual([
    { cents: cost.likelyCents, jobs: 1 },
    { cents: 0, jobs: 0 },
  ]);
  expect(await get(`/api/jobs/${job}/left`)).toEqual({ of: 'job', cents: 1000 });
});

async function withSettings(change: object) {
  const view = await get<{ version: number; settings: object }>('/api/settings');
  return { version: view.version, settings: { ...view.settings, ...change } };
}
