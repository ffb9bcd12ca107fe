import type { Answer, Question } from '@sieve/core';
import { exportLayout, settings } from '@sieve/contract';
import { decide } from '../decisions/commands';
import { chosenContacts, toExportRow } from '../exports/chosen';
import { spentCents } from '../ledger/store';
import type { Ask } from '../outside/ask';
import { ServiceDown } from '../outside/wrap/service-down';
import { exportsOf } from '../register/register';
import { testContext, testDb, testJob, testSource } from '../testing/fixtures';
import { askHandler } from './ask-run';
import { phoneEstimate } from './estimate';
import { runSift } from './sift-run';

const { db } = testDb();
const service = (id: string, priceCents: number, pays: 'answer' | 'question') => ({
  id,
  name: id,
  url: 'http://127.0.0.1:1',
  key: '',
  priceCents,
  perSecond: 100,
  pays,
});
const set = settings.parse({ phoneServices: [service('chime', 1, 'question'), service('pull', 3, 'answer')] });
/** By service, pass and last name. */
const LISTED: Record<string, string> = {
  'chime last Venn': '020 7946 0301',
  'pull full Oakhill': '020 7946 0302',
  'pull last Parry': '020 7946 0303',
  'pull last Bevan': '020 7946 0304',
};
const asked: string[] = [];
let pullIsDown = false;
const ask: Ask = async (question: Question): Promise<Answer> => {
  if (question.kind !== 'phones') throw new Error(`not asked here: ${question.kind}`);
  await new Promise((resolve) => setTimeout(resolve, 1));
  const { service: id, firstName, lastName } = question;
  if (id === 'pull' && pullIsDown) throw new ServiceDown('pull', 'it answered 503');
  const key = `${id} ${firstName === '' ? 'last' : 'full'} ${lastName}`;
  asked.push(key);
  const number = LISTED[key];
  const phones = number ? [{ number, firstName: 'Hilary', lastName, kind: null }] : [];
  return id === 'chime' ? { phones, priceCents: 1, pays: 'question' } : { phones, priceCents: 3, pays: 'answer' };
};

const columns = (['fullName', 'street', 'city', 'postcode', 'email'] as const).map((target) => ({
  name: target,
  target,
}));
function newJob(budgetCents: number, lane = 'Mill Lane') {
  const job = testJob(db, 'Phones', budgetCents);
  testSource(db, job, columns, [
    ['Maren Oakhill', `1 ${lane}`, 'Wells', 'ZZ1 1AA', 'maren@brackenfold.example'],
    ['Idris Venn', `2 ${lane}`, 'Wells', 'ZZ1 1AB', ''],
    ['Rhona Parry', `3 ${lane}`, 'Wells', 'ZZ1 1AD', ''],
    ['Ffion Bevan', `4 ${lane}`, 'Wells', 'ZZ1 1AE', ''],
    ['Orla Devlin', '', '', '', 'orla@tidewell.example'],
  ]);
  for (const id of ['append-email', 'verify'])
    decide(db, job, 'you', { kind: 'configure', step: { id, kind: id, on: false, options: {} } }, 0);
  const options = { services: ['chime', 'pull'] };
  decide(
    db,
    job,
    'you',
    { kind: 'configure', step: { id: 'append-phone', kind: 'append-phone', on: true, options } },
    0,
  );
  return job;
}
const sift = (job: number) => runSift(testContext<'sift'>(db, job, { kind: 'sift' }));
const run = async (job: number) => {
  const ends = await askHandler(ask)(
    testContext<'ask'>(db, job, { kind: 'ask', step: 'append-phone' }, { settings: set }),
  );
  await sift(job);
  return ends;
};
const layout = exportLayout.parse({
  columns: [{ field: 'phone', heading: 'Phone' }],
  verdicts: ['valid', 'risky', 'unknown', 'none'],
});
const rows = (job: number) =>
  chosenContacts(db, job, layout, 1_000)
    .map(toExportRow)
    .map(({ person, phoneFoundBy, phoneKind }) => [person.lastName, person.phone, phoneKind, phoneFoundBy]);

test('the rows without an answer go on by themselves; a service that is down is no no; what was paid is paid once for all jobs', async () => {
  const job = newJob(1000);
  await sift(job);
  expect(phoneEstimate(db, job, set, 0)).toMatchObject({
    contacts: 4,
    leftCents: 1000,
    cost: { mostCents: 4 * 4 * 4 },
  });
  pullIsDown = true;
  expect(await run(job)).toMatchObject({
    contacts: 4,
    settled: 0,
    down: [{ finder: 'pull', reason: 'it answered 503' }],
  });
  // The service that answers was asked about all, and charges for questions.
  expect([asked.length, spentCents(db, job)]).toEqual([4, 4]);
  // Who only waits for a phone can leave without one.
  expect(rows(job)).toHaveLength(5);

  pullIsDown = false;
  expect(await run(job)).toMatchObject({ contacts: 4, settled: 4, down: [] });
  expect(rows(job)).toEqual([
    ['Bevan', '+442079460304', 'landline', 'last name and address'],
    ['Devlin', '', '', ''],
    ['Oakhill', '+442079460302', 'landline', 'full name and address'],
    ['Parry', '+442079460303', 'landline', 'last name and address'],
    ['Venn', '+442079460301', 'landline', 'last name and address'],
  ]);
  expect(new Set(asked).size).toBe(asked.length);
  // Questions of the one: four in full, three by the last name alone; answers of the other: three.
  expect(spentCents(db, job)).toBe(7 * 1 + 3 * 3);
  expect(phoneEstimate(db, job, set, 0)).toMatchObject({ contacts: 0, rests: { lookups: 4 } });
  // A household's line tells nobody apart: the register does not know them by it.
  expect(exportsOf(db.register, ['phone:+442079460304 bevan'])).toEqual([]);

  const other = newJob(0);
  await sift(other);
  expect(rows(other)).toHaveLength(5);
  expect([rows(other), spentCents(db, other)]).toEqual([rows(job), 0]);
});

test('a budget that ends stops the asking, and is never passed', async () => {
  const job = newJob(5, 'Chapel Street');
  await sift(job);
  const ends = await run(job);
  expect(ends).toMatchObject({ contacts: 4 });
  expect((ends as { unaffordable: number }).unaffordable).toBeGreaterThan(0);
  expect(spentCents(db, job)).toBeLessThanOrEqual(5);
});

test('two who need the same answer at the same moment ask and pay for it once', async () => {
  const job = newJob(100, 'Twin Row');
  testSource(db, job, columns, [['Nesta Venn', '2 Twin Row', 'Wells', 'ZZ1 1AB', '']]);
  const step = { id: 'append-phone', kind: 'append-phone', on: true };
  const options = { services: ['chime'], passes: ['last'] };
  decide(db, job, 'you', { kind: 'configure', step: { ...step, options } }, 0);
  const before = asked.length;
  await run(job);
  expect(asked.slice(before).filter((key) => key === 'chime last Venn')).toHaveLength(1);
});
