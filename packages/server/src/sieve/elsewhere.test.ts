import { NO_LISTS } from '@sieve/core';
import { exportLayout, settings } from '@sieve/contract';
import { decide } from '../decisions/commands';
import { runExport } from '../exports/export-run';
import { addExport } from '../exports/store';
import { jobById } from '../jobs/store';
import { testContext, testDb, testJob, testSource } from '../testing/fixtures';
import { elsewhereVersion } from './elsewhere';
import { pairsToJudge } from './pairs-to-judge';
import { personInFull } from './person';
import { rowPage } from './rows';
import { runSift } from './sift-run';

const { db, dir } = testDb();
const columns = [
  { name: 'Name', target: 'fullName' as const },
  { name: 'Email', target: 'email' as const },
];

test('who is held in another job or left with it passes, wants a look or is set aside, as the rule says; one’s own job counts for nothing', async () => {
  const newJob = async (name: string, rows: string[][]) => {
    const job = testJob(db, name);
    testSource(db, job, columns, rows);
    await sift(job);
    return job;
  };
  const sift = (job: number) => runSift(testContext<'sift'>(db, job, { kind: 'sift' }));
  const maren = ['Maren Oakhill', 'maren@brackenfold.example'];
  const idris = ['Idris Venn', 'idris@tidewell.example'];
  const rhona = ['Rhona Parry', 'rhona@arranmor.example'];
  const first = await newJob('Spring', [maren]);
  decide(db, first, 'you', { kind: 'configure', step: { id: 'verify', kind: 'verify', on: false, options: {} } }, 0);
  await sift(first);
  const layout = exportLayout.parse({ columns: [{ field: 'email', heading: 'Email' }], verdicts: ['unknown'] });
  const exportId = addExport(db, first, layout, 1);
  await runExport(testContext<'export'>(db, first, { kind: 'export', exportId }, { dataDir: dir }));
  await newJob('Summer', [idris]);
  const job = await newJob('Autumn', [maren, idris, rhona]);
  const stopped = async (options: Record<string, unknown>, of = job) => {
    decide(db, of, 'you', { kind: 'configure', step: { id: 'screen', kind: 'screen', on: true, options } }, 0);
    await sift(of);
    const rows = (['aside', 'look'] as const).flatMap((fate) =>
      rowPage(db, of, { step: 'screen', fate, q: '', sort: 'id', desc: false, offset: 0, limit: 9 }).rows.map(
        ({ lastName, fate }) => [lastName, fate.state, fate.code, fate.why['jobs']],
      ),
    );
    return rows;
  };
  expect(await stopped({})).toEqual([]);
  expect(await stopped({ heldElsewhere: 'look', leftElsewhere: 'aside' })).toEqual([
    ['Oakhill', 'aside', 'left-elsewhere', 'Spring'],
    ['Venn', 'look', 'held-elsewhere', 'Summer'],
  ]);
  expect(await stopped({ leftElsewhere: 'look' })).toEqual([['Oakhill', 'look', 'left-elsewhere', 'Spring']]);
  // In the job that they left with, they did not leave elsewhere.
  expect(await stopped({ heldElsewhere: 'pass', leftElsewhere: 'aside' }, first)).toEqual([]);
  expect(jobById(db, job)!.summary!.steps.find(({ id }) => id === 'screen')).toMatchObject({ came: 3, pass: 2 });
});

/** A job of names and firms whose screen asks who is held elsewhere. */
async function jobOf(name: string, rows: string[][], options: Record<string, unknown> = { heldElsewhere: 'aside' }) {
  const job = testJob(db, name);
  testSource(
    db,
    job,
    [
      { name: 'Name', target: 'fullName' as const },
      { name: 'Firm', target: 'company' as const },
      { name: 'Town', target: 'city' as const },
    ],
    rows,
  );
  decide(db, job, 'you', { kind: 'configure', step: { id: 'screen', kind: 'screen', on: true, options } }, 0);
  await siftOf(job);
  return job;
}
const siftOf = (job: number) => runSift(testContext<'sift'>(db, job, { kind: 'sift' }));
const stoppedIn = (job: number) =>
  (['aside', 'look'] as const).flatMap((fate) =>
    rowPage(db, job, { step: 'screen', fate, q: '', sort: 'id', desc: false, offset: 0, limit: 9 }).rows.map((row) => ({
      ...row,
      said: [row.lastName, row.fate.code, row.fate.why['jobs']],
    })),
  );

test('whom another job holds under a like name and at a like company wants a look, both side by side; kept by hand they pass', async () => {
  await jobOf('Winter', [
    ['William Hebden', 'Dunnock Dairies', 'Edale'],
    ['Nuala Farrow', 'Arranmor', 'Bala'],
    ['Carys Holm', 'Tidewell', 'Wells'],
  ]);
  const job = await jobOf('Next', [
    ['Bill Hebden', 'Dunnock Dairies', 'Edale'],
    ['Nuala Farrow', 'Arranmor Creamery', ''],
    ['Carys Holm', 'Brackenfold', 'Bath'],
  ]);
  expect(stoppedIn(job).map(({ said }) => said)).toEqual([
    ['Hebden', 'alike-elsewhere', 'Winter'],
    ['Farrow', 'alike-elsewhere', 'Winter'],
  ]);
  // On the screen that judges pairs they stand with the others, and either answer is a decision about the contact.
  const { total, pairs } = pairsToJudge(db, job, 10, NO_LISTS);
  expect(total).toBe(2);
  expect(
    pairs.map(
      (pair) => 'there' in pair && [pair.person.firstName, pair.there.person.firstName, pair.there.job, pair.step],
    ),
  ).toEqual([
    ['Bill', 'William', 'Winter', 'screen'],
    ['Nuala', 'Nuala', 'Winter', 'screen'],
  ]);
  const [, farrow] = stoppedIn(job);
  const { likely } = personInFull(db, job, farrow!.id, settings.parse({}))!;
  expect(likely).toEqual([
    expect.objectContaining({ chance: null, person: expect.objectContaining({ city: 'Bala' }) as object }),
  ]);
  decide(db, job, 'you', { kind: 'keep', recordIds: [farrow!.id], step: 'screen' }, 0);
  await siftOf(job);
  expect(stoppedIn(job)).toHaveLength(1);
  expect(pairsToJudge(db, job, 10, NO_LISTS).total).toBe(1);
});

test('who only asks who left elsewhere is not told of who is held there', async () => {
  const job = await jobOf('Left', [['Bill Hebden', 'Dunnock Dairies', 'Edale']], { leftElsewhere: 'aside' });
  expect(stoppedIn(job)).toEqual([]);
});

test('what other jobs bring later sifts this one anew, and nothing else does', async () => {
  const job = await jobOf('Early', [['Idris Lind', 'Tidewell', 'Wells']]);
  const isAged = () => jobById(db, job)!.summary!.elsewhere !== elsewhereVersion(db, job);
  await siftOf(job);
  expect(isAged()).toBe(false);
  const other = await jobOf('Late', [['Idris Lind', 'Tidewell', 'Wells']], {});
  expect(isAged()).toBe(true);
  await siftOf(job);
  await siftOf(other);
  expect(isAged()).toBe(false);
  expect(stoppedIn(job).map(({ said }) => said)).toEqual([['Lind', 'held-elsewhere', 'Late']]);
});
