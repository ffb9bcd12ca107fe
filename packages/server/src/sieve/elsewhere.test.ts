import { exportLayout } from '@sieve/contract';
import { decide } from '../decisions/commands';
import { runExport } from '../exports/export-run';
import { addExport } from '../exports/store';
import { jobById } from '../jobs/store';
import { testContext, testDb, testJob, testSource } from '../testing/fixtures';
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

test('who is likely held in another job, by a short form of the name at the same firm, wants a look; kept by hand they pass', async () => {
  const named = [
    { name: 'Name', target: 'fullName' as const },
    { name: 'Firm', target: 'company' as const },
  ];
  const of = async (name: string, rows: string[][]) => {
    const job = testJob(db, name);
    testSource(db, job, named, rows);
    return job;
  };
  const sift = (job: number) => runSift(testContext<'sift'>(db, job, { kind: 'sift' }));
  await sift(
    await of('Winter', [
      ['William Hebden', 'Dunnock Dairies'],
      ['Nuala Farrow', 'Arranmor'],
    ]),
  );
  const job = await of('Next', [
    ['Bill Hebden', 'Dunnock Dairies'],
    ['Nuala Farrow', 'Arranmor Creamery'],
    ['Bill Hebden', 'Edale'],
  ]);
  decide(
    db,
    job,
    'you',
    { kind: 'configure', step: { id: 'screen', kind: 'screen', on: true, options: { heldElsewhere: 'aside' } } },
    0,
  );
  await sift(job);
  const looks = () =>
    rowPage(db, job, { step: 'screen', fate: 'look', q: '', sort: 'id', desc: false, offset: 0, limit: 9 }).rows;
  expect(looks().map(({ lastName, fate }) => [lastName, fate.code, fate.why['jobs']])).toEqual([
    ['Hebden', 'likely-elsewhere', 'Winter'],
    ['Farrow', 'likely-elsewhere', 'Winter'],
  ]);
  decide(db, job, 'you', { kind: 'keep', recordIds: [looks()[0]!.id], step: 'screen' }, 0);
  await sift(job);
  expect(looks()).toHaveLength(1);
  // Who only asks who left elsewhere is not told of who is likely held there.
  const left = { id: 'screen', kind: 'screen', on: true, options: { leftElsewhere: 'aside' } };
  decide(db, job, 'you', { kind: 'configure', step: left }, 0);
  await sift(job);
  expect(looks()).toEqual([]);
});
