import { addRun, setRun } from '../runs/store';
import { testDb, testJob, testSource } from '../testing/fixtures';
import { countRead, sourceRows } from './store';

const { db } = testDb();

test('a source whose bringing in was stopped says how many rows are missing, until it has gone on to its end', () => {
  const job = testJob(db);
  const source = testSource(db, job, [{ name: 'Name', target: 'fullName' }], [['Maren Oakhill']]);
  const stopped = () => sourceRows(db, job)[0]!.stopped;
  expect(stopped()).toBeNull();
  const runId = addRun(db, job, { kind: 'bring-in', sourceId: source, rows: 5000 }, 0);
  countRead(db, source, 1200);
  expect(stopped()).toBeNull();
  setRun(db, runId, { state: 'cancelled' });
  expect(stopped()).toEqual({ runId, missing: 3800 });
  countRead(db, source, 3800);
  setRun(db, runId, { state: 'done' });
  expect(stopped()).toBeNull();
});
