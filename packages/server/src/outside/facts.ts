import {
  answeredBy,
  questionKey,
  type AnswerOf,
  type Fact,
  type Facts,
  type Question,
  type QuestionKind,
} from '@sieve/core';
import type { Db } from '../db/open';

/** How long an answer is fresh. Common practice: 90 days, no source. */
export const FRESH_MS = 90 * 24 * 3600 * 1000;

/** Facts of the table, remembered once read; `forget` makes one be read again. */
export type TableFacts = Facts & { forget: (question: Question) => void };

/** Looks up what has been answered; one sifting asks the table once a question. */
export function factsIn(db: Db): TableFacts {
  const select = db.$client.prepare(
    'SELECT answer, asked_at AS askedAt FROM facts WHERE kind = ? AND question = ? AND who = ?',
  );
  const known = new Map<string, Fact | undefined>();
  const keyOf = (question: Question) => `${question.kind} ${answeredBy(question)} ${questionKey(question)}`;
  const look = (<Q extends Question>(question: Q) => {
    const key = keyOf(question);
    if (!known.has(key)) {
      const row = select.get(question.kind, questionKey(question), answeredBy(question)) as
        { answer: string; askedAt: number } | undefined;
      known.set(key, row && { answer: JSON.parse(row.answer) as AnswerOf[QuestionKind], askedAt: row.askedAt });
    }
    return known.get(key);
  }) as Facts;
  return Object.assign(look, { forget: (question: Question) => void known.delete(keyOf(question)) });
}

/**
 * Keeps an answer; where it was bought, the charge goes with it in one transaction. An answer that is there already stays,
 * and is not charged again.
 *
 * @returns false when the answer was there already
 */
export function keepFact(
  db: Db,
  question: Question,
  answer: AnswerOf[QuestionKind],
  askedAt: number,
  charge: { jobId: number; reason: string } | null,
): boolean {
  const client = db.$client;
  return client
    .transaction(() => {
      const kept = client
        .prepare(
          'INSERT INTO facts (kind, question, who, answer, asked_at) VALUES (?, ?, ?, ?, ?) ON CONFLICT DO NOTHING',
        )
        .run(question.kind, questionKey(question), answeredBy(question), JSON.stringify(answer), askedAt);
      if (kept.changes === 0) return false;
      if (question.kind === 'purchase' && charge) {
        client
          .prepare('INSERT INTO charges (job_id, who, question, cents, reason, at) VALUES (?, ?, ?, ?, ?, ?)')
          .run(charge.jobId, question.finder, question.lookup, question.priceCents, charge.reason, askedAt);
      }
      return true;
    })
    .immediate();
}

/** An answer that says nothing is asked again after this time. */
const UNCLEAR_MS = 3600 * 1000;

/** Forgets answers about mailboxes that are no longer fresh, and those that said nothing, so that they are asked again. */
export function forgetStale(db: Db, now: number): void {
  db.$client
    .prepare(`DELETE FROM facts WHERE kind IN ('mail-host', 'mailbox', 'catch-all') AND asked_at < ?`)
    .run(now - FRESH_MS);
  db.$client
    .prepare(
      `DELETE FROM facts WHERE kind IN ('mail-host', 'mailbox', 'catch-all') AND asked_at < ?
       AND json_extract(answer, '$.state') IN ('failed', 'no-answer', 'try-later', 'unclear')`,
    )
    .run(now - UNCLEAR_MS);
}
