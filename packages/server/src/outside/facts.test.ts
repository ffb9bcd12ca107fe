import { join } from 'node:path';
import type { Question } from '@sieve/core';
import { closeDb, openDb } from '../db/open';
import { factsIn, forgetStale, FRESH_MS, keepFact } from './facts';
import { createJob, spentCents } from '../jobs/store';

const db = openDb(':memory:', join(__dirname, '../../migrations'));
const job = createJob(db, { name: 'Facts', folder: '', note: '', targetValid: 0, budgetCents: 1000 }, 0);
afterAll(() => closeDb(db));

const mailbox: Question = { kind: 'mailbox', email: 'm@brackenfold.example' };
const purchase: Question = { kind: 'purchase', finder: 'lantern', lookup: 'lk-1', priceCents: 15 };
const charge = { jobId: job, reason: 'valid address for contact 7' };

test('an answer is kept once, and what it cost is charged once, with its reason', () => {
  expect(keepFact(db, purchase, { bought: true }, 5, charge)).toBe(true);
  expect(keepFact(db, purchase, { bought: true }, 6, charge)).toBe(false);
  expect(spentCents(db, job)).toBe(15);
  expect(db.$client.prepare('SELECT who, cents, reason, at FROM charges').all()).toEqual([
    { who: 'lantern', cents: 15, reason: 'valid address for contact 7', at: 5 },
  ]);
  const finder: Question = {
    kind: 'finder',
    finder: 'lantern',
    firstName: 'Maren',
    lastName: 'Oakhill',
    domain: 'a.example',
  };
  keepFact(db, finder, { email: null, lookup: 'x', priceCents: 15 }, 5, charge);
  expect(spentCents(db, job)).toBe(15);
});

test('facts are read once until they are to be read again', () => {
  const facts = factsIn(db);
  expect(facts(mailbox)).toBeUndefined();
  keepFact(db, mailbox, { state: 'accepted', code: 250 }, 9, null);
  expect(facts(mailbox)).toBeUndefined();
  facts.forget(mailbox);
  expect(facts(mailbox)).toEqual({ answer: { state: 'accepted', code: 250 }, askedAt: 9 });
});

// Common practice, no source: a verdict ages after 90 days.
test('what is no longer fresh, and what said nothing, is asked again; what was bought stays', () => {
  const unclear: Question = { kind: 'mailbox', email: 'n@brackenfold.example' };
  keepFact(db, unclear, { state: 'no-answer', code: 0 }, 9, null);
  const kinds = () => db.$client.prepare('SELECT kind, question FROM facts ORDER BY 1, 2').raw().all();
  forgetStale(db, 10);
  expect(kinds()).toHaveLength(4);
  forgetStale(db, 9 + 3600 * 1000 + 1);
  expect(kinds()).not.toContainEqual(['mailbox', 'n@brackenfold.example']);
  expect(kinds()).toContainEqual(['mailbox', 'm@brackenfold.example']);
  forgetStale(db, 10 + FRESH_MS);
  const left = (kinds() as [string, string][]).map(([kind]) => kind);
  expect(left).toEqual(['finder', 'purchase']);
});
