import type { Answer, Question } from '@sieve/core';
import { firmQuery, settings } from '@sieve/contract';
import { decide } from '../decisions/commands';
import { exportCounts } from '../exports/chosen';
import { exportLayout } from '@sieve/contract';
import { jobById } from '../jobs/store';
import { spentCents } from '../ledger/store';
import type { Ask } from '../outside/ask';
import { testContext, testDb, testJob, testSource } from '../testing/fixtures';
import { askHandler } from './ask-run';
import { firmPage, firmView } from './firms';
import { runSift } from './sift-run';

const { db } = testDb();
const SITES: Record<string, string> = {
  'brackenfold.example': 'We make cheese by hand.',
  'tidewell.example': 'We do not make cheese.',
  'arranmor.example': 'Welcome to our farm.',
};
const asked: Question[] = [];
let isDown = false;
const ask: Ask = async (question): Promise<Answer> => {
  asked.push(question);
  await new Promise((resolve) => setTimeout(resolve, 1));
  switch (question.kind) {
    case 'website': {
      if (isDown) return { state: 'no-answer' };
      const text = SITES[question.domain];
      return text ? { state: 'read', pages: [{ path: '/', title: '', lines: [text] }] } : { state: 'no-domain' };
    }
    case 'firm-offer':
      return { record: `co ${question.domain}`, priceCents: 3 };
    case 'firm-record':
      return {
        sector: 'Cheese making',
        headcount: 18,
        growth: 4,
        city: 'Wells',
        region: '',
        country: 'GB',
        technology: ['Wheelbook'],
        hiring: [],
      };
    default:
      throw new Error(`not asked here: ${question.kind}`);
  }
};

test('a company is asked once for all its people and all jobs; each stands where its people stand; an answer by hand moves it', async () => {
  const columns = [
    { name: 'Name', target: 'fullName' as const },
    { name: 'Firm', target: 'company' as const },
    { name: 'Web', target: 'website' as const },
  ];
  const newJob = () => {
    const job = testJob(db, 'Companies', 100);
    testSource(db, job, columns, [
      ['Maren Oakhill', 'Brackenfold', 'brackenfold.example'],
      ['Idris Venn', 'Brackenfold', 'brackenfold.example'],
      ['Rhona Parry', 'Tidewell', 'tidewell.example'],
      ['Ffion Bevan', 'Arranmor', 'arranmor.example'],
      ['Orla Devlin', 'Inish', ''],
    ]);
    for (const id of ['append-email', 'verify'])
      decide(db, job, 'you', { kind: 'configure', step: { id, kind: id, on: false, options: {} } }, 0);
    const options = {
      question: 'Do they make cheese here?',
      speaksFor: ['make cheese'],
      detailsBy: 'fernbank',
    };
    decide(db, job, 'you', { kind: 'configure', step: { id: 'company', kind: 'company', on: true, options } }, 0);
    return job;
  };
  const sift = (job: number) => runSift(testContext<'sift'>(db, job, { kind: 'sift' }));
  const run = async (job: number) => {
    const ends = await askHandler(ask)(
      testContext<'ask'>(db, job, { kind: 'ask', step: 'company' }, { settings: settings.parse({}) }),
    );
    await sift(job);
    return ends;
  };
  const page = (job: number, query: object = {}) => firmPage(db, job, firmQuery.parse({ sort: 'name', ...query }));
  const standing = (job: number) => page(job).rows.map(({ name, state, answer, came }) => [name, state, answer, came]);

  const job = newJob();
  await sift(job);
  isDown = true;
  expect(await run(job)).toMatchObject({ settled: 0, silent: 4 });
  const layout = exportLayout.parse({ columns: [{ field: 'websiteSays', heading: 'Says' }], verdicts: ['none'] });
  // Whose company has not answered is not through the screening, and does not leave.
  expect(exportCounts(db, job, layout, 1).chosen).toEqual([]);
  isDown = false;
  expect(await run(job)).toMatchObject({ settled: 4, silent: 0 });
  expect(standing(job)).toEqual([
    ['Arranmor', 'look', 'unclear', 1],
    ['Brackenfold', 'pass', 'yes', 2],
    ['Inish', 'look', '', 1],
    ['Tidewell', 'aside', 'no', 1],
  ]);
  expect(page(job)).toMatchObject({ answers: { yes: 1, no: 1, unclear: 1 }, states: { pass: 1, aside: 1, look: 2 } });
  // Only who passes the question is bought, once for two people.
  expect(spentCents(db, job)).toBe(3);

  const question = 'Do they make cheese here?';
  decide(db, job, 'you', { kind: 'site-answer', question, domain: 'arranmor.example', answer: 'yes' }, 0);
  await sift(job);
  await run(job);
  expect(page(job, { answer: 'yes' }).rows.map(({ name, by }) => [name, by])).toEqual([
    ['Arranmor', 'hand'],
    ['Brackenfold', 'words'],
  ]);
  expect([page(job).taught, spentCents(db, job)]).toEqual([{ yes: 1, no: 0 }, 6]);
  expect(page(job, { show: 'teach' }).rows.map(({ name }) => name)).toEqual(['Brackenfold', 'Tidewell']);
  expect(page(job, { q: 'tide' }).total).toBe(1);
  expect(firmView(db, job, 'company', 'brackenfold.example')).toMatchObject({
    site: { state: 'read', speaking: [{ path: '/', line: 1, speaks: 'for', word: 'make cheese' }] },
    bought: { priceCents: 3, record: { headcount: 18, technology: ['Wheelbook'] } },
    people: [{ name: 'Maren Oakhill' }, { name: 'Idris Venn' }],
  });
  expect(exportCounts(db, job, layout, 1).chosen.map(({ person, firm }) => [person.lastName, firm?.answer])).toEqual([
    ['Bevan', 'yes'],
    ['Oakhill', 'yes'],
    ['Venn', 'yes'],
  ]);

  // Another job knows it all: nothing is asked, nothing is charged.
  const before = asked.length;
  const other = newJob();
  await sift(other);
  const waits = jobById(db, other)!.summary!.steps.find(({ id }) => id === 'company')!.waits;
  expect([waits, asked.length - before, spentCents(db, other)]).toEqual([0, 0, 0]);
  expect(standing(other)[0]).toEqual(['Arranmor', 'look', 'unclear', 1]);
});

test('the name that most of its people have stands for a company; the sites of a group are told, not merged', async () => {
  const job = testJob(db, 'Names', 100);
  const columns = [
    { name: 'Name', target: 'fullName' as const },
    { name: 'Firm', target: 'company' as const },
    { name: 'Web', target: 'website' as const },
    { name: 'Town', target: 'city' as const },
  ];
  testSource(db, job, columns, [
    ['Maren Oakhill', 'Brackenfold', 'brackenfold.example', 'Wells'],
    ['Idris Venn', 'Brackenfold', 'brackenfold.example', 'Wells'],
    ['Rhona Parry', 'Zz Brackenfold Dairies', 'brackenfold.example', 'Wells'],
    ['Ffion Bevan', 'Brackenfold Cork Plant', 'cork.example', 'Cork'],
    ['Orla Devlin', 'Tidewell', 'tidewell.example', 'Cork'],
  ]);
  decide(db, job, 'you', { kind: 'configure', step: { id: 'company', kind: 'company', on: true, options: {} } }, 0);
  await runSift(testContext<'sift'>(db, job, { kind: 'sift' }));
  const { rows } = firmPage(db, job, firmQuery.parse({ step: 'company' }));
  const first = rows.find(({ name }) => name === 'Brackenfold')!;
  const full = firmView(db, job, 'company', first.key)!;
  expect(full.spellings).toEqual([
    { name: 'Brackenfold', people: 2 },
    { name: 'Zz Brackenfold Dairies', people: 1 },
  ]);
  expect(full.sites).toMatchObject([{ name: 'Brackenfold Cork Plant', place: 'Cork', came: 1 }]);
  const named = { kind: 'edit' as const, field: 'company' as const, value: 'Brackenfold', recordIds: full.recordIds };
  decide(db, job, 'you', named, 0);
  await runSift(testContext<'sift'>(db, job, { kind: 'sift' }));
  expect(firmView(db, job, 'company', first.key)!.spellings).toEqual([{ name: 'Brackenfold', people: 3 }]);
});
