import {
  answeredBy,
  isPaid,
  known,
  priceOf,
  questionKey,
  staleAt,
  type Answer,
  type Fact,
  type Facts,
  type Known,
  type Question,
} from '@sieve/core';
import type { Db } from '../db/open';
import { addCharge } from '../ledger/store';

/** Facts of the table, remembered once read; `forget` makes one be read again. */
export type TableFacts = Facts & {
  forget: (question: Question) => void;
  /** When the first of the facts that were read is no longer fresh; null: never. */
  freshUntil: () => number | null;
};

/**
 * The facts as they are fresh at a time; one sifting asks the table once a question.
 *
 * @param freshMs how long an answer that ages is fresh
 */
export function factsAt(db: Db, now: number, freshMs: number): TableFacts {
  const select = db.$client
    .prepare('SELECT answer, asked_at FROM facts WHERE kind = ? AND question = ? AND who = ? ORDER BY id DESC')
    .raw();
  const read = new Map<string, Known>();
  const keyOf = (question: Question) => `${question.kind} ${answeredBy(question)} ${questionKey(question)}`;
  let freshUntil = Infinity;
  const look = ((question: Question) => {
    const key = keyOf(question);
    let found = read.get(key);
    if (!found) {
      const rows = select.all(question.kind, questionKey(question), answeredBy(question)) as [string, number][];
      const facts = rows.map(([answer, askedAt]): Fact => ({ answer: JSON.parse(answer) as Answer, askedAt }));
      found = known(question, facts, now, freshMs);
      read.set(key, found);
      if (found.fact) freshUntil = Math.min(freshUntil, staleAt(question, found.fact, freshMs));
    }
    return found;
  }) as Facts;
  return Object.assign(look, {
    forget: (question: Question) => void read.delete(keyOf(question)),
    freshUntil: () => (freshUntil === Infinity ? null : freshUntil),
  });
}

/**
 * Appends an answer; where it was bought, the charge goes with it in one transaction. What is bought is bought once: asked
 * for again, nothing is written and nothing is charged.
 *
 * @returns false when it had been bought already
 */
export function keepFact(
  db: Db,
  question: Question,
  answer: Answer,
  askedAt: number,
  charge: { jobId: number; reason: string } | null,
): boolean {
  const client = db.$client;
  const key = [question.kind, questionKey(question), answeredBy(question)] as const;
  return client
    .transaction(() => {
      const bought =
        isPaid(question) &&
        client.prepare('SELECT 1 FROM facts WHERE kind = ? AND question = ? AND who = ?').get(...key) !== undefined;
      if (bought) return false;
      client
        .prepare('INSERT INTO facts (kind, question, who, answer, asked_at) VALUES (?, ?, ?, ?, ?)')
        .run(...key, JSON.stringify(answer), askedAt);
      if (isPaid(question) && charge)
        addCharge(db, { ...charge, who: key[2], question: key[1], cents: priceOf(question), at: askedAt });
      return true;
    })
    .immediate();
}
