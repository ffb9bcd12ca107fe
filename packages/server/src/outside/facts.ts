import {
  answeredBy,
  chargeOf,
  creditsOf,
  isPaid,
  known,
  questionKey,
  says,
  soldBy,
  staleAt,
  type Answer,
  type AnswerOf,
  type Fact,
  type Facts,
  type Freshness,
  type Known,
  type Question,
  type QuestionKind,
} from '@sieve/core';
import type { Db } from '../db/open';
import { beginPlanMonth, type PlanMonth } from '../ledger/plans';
import { addCharge } from '../ledger/store';

/** Facts of the table, remembered once read; `forget` makes one be read again. */
export type TableFacts = Facts & {
  forget: (question: Question) => void;
  /** When the first of the facts that were read is no longer fresh; null: never. */
  freshUntil: () => number | null;
};

/** The facts as they are fresh at a time; one sifting asks the table once a question. */
export function factsAt(db: Db, now: number, freshness: Freshness): TableFacts {
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
      found = known(question, facts, now, freshness);
      read.set(key, found);
      if (found.fact) freshUntil = Math.min(freshUntil, staleAt(question, found.fact, freshness));
    }
    return found;
  }) as Facts;
  return Object.assign(look, {
    forget: (question: Question) => void read.delete(keyOf(question)),
    freshUntil: () => (freshUntil === Infinity ? null : freshUntil),
  });
}

/** The answers of one kind, the newest first, each with the key of its question and who gave it. */
export const newestAnswers = <K extends QuestionKind>(
  db: Db,
  kind: K,
  most: number,
): { question: string; who: string; answer: AnswerOf<K> }[] =>
  (
    db.$client
      .prepare('SELECT question, who, answer FROM facts WHERE kind = ? ORDER BY id DESC LIMIT ?')
      .all(kind, most) as { question: string; who: string; answer: string }[]
  ).map((row) => ({ ...row, answer: JSON.parse(row.answer) as AnswerOf<K> }));

/**
 * Appends an answer; where it was bought, the charge goes with it in one transaction. What is bought is bought once: where somebody
 * has it since, nothing is written and nothing is charged.
 *
 * @param stale the answer that was too old when this one was asked for
 * @returns false when it had been bought already
 */
export function keepFact(
  db: Db,
  question: Question,
  answer: Answer,
  askedAt: number,
  charge: { jobId: number; reason: string; contact: number; plan?: PlanMonth | null } | null,
  stale: Fact | null = null,
): boolean {
  const client = db.$client;
  const key = [question.kind, questionKey(question), answeredBy(question)] as const;
  return client
    .transaction(() => {
      const cents = chargeOf(question, answer);
      const credits = creditsOf(question, answer);
      const isCharged = isPaid(question) || cents > 0 || credits > 0;
      const bought =
        isCharged &&
        (
          client
            .prepare('SELECT answer FROM facts WHERE kind = ? AND question = ? AND who = ? AND asked_at > ?')
            .pluck()
            .all(...key, stale?.askedAt ?? -1) as string[]
        ).some((had) => says(question, JSON.parse(had) as Answer));
      if (bought) return false;
      client
        .prepare('INSERT INTO facts (kind, question, who, answer, asked_at) VALUES (?, ?, ?, ?, ?)')
        .run(...key, JSON.stringify(answer), askedAt);
      if (isCharged && charge) {
        const who = soldBy(question, answer);
        addCharge(db, { ...charge, who, question: key[1], cents, credits, at: askedAt });
        if (credits > 0 && charge.plan) beginPlanMonth(db, who, charge.plan, askedAt);
      }
      return true;
    })
    .immediate();
}
