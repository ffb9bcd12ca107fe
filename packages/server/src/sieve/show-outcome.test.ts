import { emptyPerson } from '@sieve/core';
import { seededRandom } from '@sieve/core/text/random';
import type { Summary } from '@sieve/contract';
import { testDb, testJob } from '../testing/fixtures';
import { nothingKept } from './kept';
import { shownOutcome, type StoredPair } from './outcomes';
import { showOutcome } from './show-outcome';
import { fromColumns, STOP_PASSED, type ContactColumns, type StoredContact } from './stored-contact';

jest.setTimeout(60_000);

const { db } = testDb();
const kept = nothingKept();

const contact = (id: number, title: string): StoredContact => ({
  id,
  recordIds: [id],
  person: { ...emptyPerson(), firstName: 'Maren', lastName: `Oakhill ${id}`, title, company: 'Brackenfold' },
  extra: {},
  from: {},
  sources: 'list',
  mergeChance: 1,
  via: '',
  alternatives: [],
  found: {},
  filledBy: {},
  firmKey: '',
  firm: null,
  phone: null,
  verdict: '',
  reason: '',
  askedAt: 0,
  stop: STOP_PASSED,
  state: 'pass',
  code: 'passed',
  why: {},
});
const newJob = () => testJob(db);
const shown = (job: number) => {
  const { contacts, search, pairs } = shownOutcome(db, job);
  const all = (sql: string) => db.outcomes.prepare(sql).raw().all();
  return {
    contacts: (all(`SELECT * FROM ${contacts} ORDER BY id`) as ContactColumns[]).map(fromColumns),
    titles: all(
      `SELECT c.title, s.text LIKE '%' || c.title || '%' FROM ${contacts} c JOIN ${search} s USING (id) ORDER BY id`,
    ),
    pairs: all(`SELECT a, b, chance, merged, pattern FROM ${pairs} ORDER BY a, b`),
  };
};
const show = (
  job: number,
  contacts: StoredContact[],
  pairs: StoredPair[] = [],
  { signal = new AbortController().signal, onWritten = (_share: number): void => undefined } = {},
) =>
  showOutcome(
    db,
    job,
    {
      contacts,
      pairs,
      companies: [],
      summary: { records: contacts.length } as Summary,
      weights: { levels: {} } as never,
    },
    { kept, signal, onWritten },
  );
const outcomes = (job: number) =>
  db.$client.prepare('SELECT count(*) FROM outcomes WHERE job_id = ?').pluck().get(job) as number;

test('over random changes what is shown is what was computed, written as a difference or whole', async () => {
  const job = newJob();
  const random = seededRandom(11);
  for (let round = 0; round < 40; round++) {
    const contacts = Array.from({ length: Math.floor(random() * 60) }, (_, i) =>
      contact(i * 3, random() < 0.8 ? 'Owner' : 'Head'),
    );
    const pairs = contacts
      .slice(1)
      .filter(() => random() < 0.3)
      .map(({ id }): StoredPair => [
        id - 3,
        id,
        random() < 0.5 ? 0.5 : 0.9,
        random() < 0.5 ? 1 : 0,
        Math.floor(random() * 3),
      ]);
    await show(job, contacts, pairs);
    // Now and then another thread has sifted: what this one remembers is not what is shown.
    if (random() < 0.3) {
      const { contacts: table } = shownOutcome(db, job);
      db.outcomes.exec(`UPDATE ${table} SET title = 'Chair'`);
      db.$client.prepare('UPDATE jobs SET version = version + 1 WHERE id = ?').run(job);
      await show(job, contacts, pairs);
    }
    expect(shown(job)).toEqual({ contacts, titles: contacts.map(({ person }) => [person.title, 1]), pairs });
  }
  await show(job, []);
  expect(outcomes(job)).toBe(1);
});

test('a large change is written beside the old outcome; stopped in the middle, the old one stays', async () => {
  const job = newJob();
  const many = (title: string, n = 9000) => Array.from({ length: n }, (_, i) => contact(i, title));
  await show(job, many('Owner'));
  const stop = new AbortController();
  const stopping = show(job, many('Head'), [], {
    signal: stop.signal,
    onWritten: (share) => {
      // Whoever reads meanwhile sees the old outcome.
      expect(new Set(shown(job).contacts.map(({ person }) => person.title))).toEqual(new Set(['Owner']));
      if (share > 0.4) stop.abort(new Error('stopped'));
    },
  });
  await expect(stopping).rejects.toThrow('stopped');
  expect(shown(job).contacts).toHaveLength(9000);
  expect(outcomes(job)).toBe(2);
  await show(job, many('Head', 8000));
  expect(new Set(shown(job).contacts.map(({ person }) => person.title))).toEqual(new Set(['Head']));
  expect(shown(job).contacts).toHaveLength(8000);
  // The one before stays for whoever is still reading it, until the next; what was stopped is gone.
  expect(outcomes(job)).toBe(2);
  await show(job, many('Head', 8000));
  expect(outcomes(job)).toBe(1);
  const tables = db.outcomes.prepare("SELECT name FROM sqlite_master WHERE name GLOB 'pairs_[1-9]*'").pluck().all();
  expect(tables).toHaveLength(db.$client.prepare('SELECT count(*) FROM outcomes').pluck().get() as number);
});

test('outcomes of different jobs do not touch each other', async () => {
  const [a, b] = [newJob(), newJob()];
  await show(a, [contact(1, 'Owner')]);
  await show(b, [contact(1, 'Head')]);
  await show(a, []);
  expect([shown(a).contacts, shown(b).contacts]).toEqual([[], [contact(1, 'Head')]]);
});
