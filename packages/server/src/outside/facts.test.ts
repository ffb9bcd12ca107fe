import { ANY_AGE, type Question } from '@sieve/core';
import { spentCents } from '../ledger/store';
import { testDb, testJob } from '../testing/fixtures';
import { factsAt, keepFact } from './facts';

const { db } = testDb();
const job = testJob(db, 'Facts', 1000);

const mailbox: Question = { kind: 'mailbox', email: 'm@brackenfold.example' };
const purchase: Question = { kind: 'purchase', finder: 'lantern', lookup: 'lk-1', priceCents: 15 };
const charge = { jobId: job, reason: 'valid address for contact 7', contact: 1 };

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

test('a finder that charges for answers or for questions is charged with its answer, once for each question', () => {
  const before = spentCents(db, job);
  const about = (lastName: string): Question => ({
    kind: 'finder',
    finder: 'beacon',
    firstName: 'Maren',
    lastName,
    domain: 'b.example',
  });
  const nothing = { email: null, lookup: 'y', priceCents: 7 };
  const found = { ...nothing, email: 'm@b.example' };
  keepFact(db, about('Answer'), { ...nothing, pays: 'answer' }, 5, charge);
  expect(spentCents(db, job)).toBe(before);
  keepFact(db, about('Found'), { ...found, pays: 'answer' }, 5, charge);
  keepFact(db, about('Question'), { ...nothing, pays: 'question' }, 5, charge);
  expect(keepFact(db, about('Question'), { ...nothing, pays: 'question' }, 6, charge)).toBe(false);
  expect(spentCents(db, job)).toBe(before + 14);
  // Asked again when it was too old, it is bought again; whoever comes second with that answer buys nothing.
  const stale = { answer: nothing, askedAt: 5 };
  expect(keepFact(db, about('Question'), { ...found, pays: 'question' }, 9, charge, stale)).toBe(true);
  expect(keepFact(db, about('Question'), { ...found, pays: 'question' }, 10, charge, stale)).toBe(false);
  expect(spentCents(db, job)).toBe(before + 21);
  db.$client.exec(`DELETE FROM facts WHERE who = 'beacon'`);
});

test('facts are read once until they are to be read again', () => {
  const facts = factsAt(db, 10, ANY_AGE);
  expect(facts(mailbox)).toMatchObject({ fact: null, silent: null, stale: null });
  keepFact(db, mailbox, { state: 'accepted', code: 250 }, 9, null);
  expect(facts(mailbox).fact).toBeNull();
  facts.forget(mailbox);
  expect(facts(mailbox)).toEqual({ fact: { answer: { state: 'accepted', code: 250 }, askedAt: 9 } });
});

// Common practice, no source: a verdict ages after 90 days.
test('facts are appended: the newest that is fresh and says something counts, the others stay as history', () => {
  const DAY = 86_400_000;
  const later = (days: number) => factsAt(db, 9 + days * DAY, { ...ANY_AGE, agesMs: 90 * DAY });
  expect(later(90).freshUntil()).toBeNull();
  const before = later(90);
  expect(before(mailbox).fact).not.toBeNull();
  expect(before.freshUntil()).toBe(9 + 90 * DAY);
  expect(later(91)(mailbox)).toMatchObject({ fact: null, silent: null, stale: { askedAt: 9 } });
  keepFact(db, mailbox, { state: 'no-answer', code: 0 }, 9 + 91 * DAY, null);
  expect(later(90)(mailbox).fact).not.toBeNull();
  expect(later(92)(mailbox)).toMatchObject({ fact: null, silent: 'no-answer', stale: { askedAt: 9 } });
  keepFact(db, mailbox, { state: 'no-mailbox', code: 550 }, 9 + 92 * DAY, null);
  expect(later(93)(mailbox).fact?.answer).toEqual({ state: 'no-mailbox', code: 550 });
  expect(later(9000)(purchase).fact).not.toBeNull();
  expect(db.$client.prepare('SELECT count(*) FROM facts').pluck().get()).toBe(5);
});
