import type { DecisionBody } from '@sieve/core';
import type { Author, ChangeBody, DecisionRow, DecisionSubject } from '@sieve/contract';
import { inTransaction, type Db } from '../db/open';
import { AppError } from '../errors';
import { countDecision, keepSieve } from '../jobs/store';
import { APPLY } from './apply';
import { addDecision, configuredSteps, decisionById, markUndone } from './store';

/** Writes a decision about a job and what it comes to, in one transaction (that of the caller, if there is one). */
export function decide(db: Db, jobId: number, author: Author, body: DecisionBody, now: number): DecisionRow {
  return inTransaction(db, () => {
    const row = addDecision(db, { subject: 'job', subjectId: jobId }, author, body, now);
    keepForce(db, row, 1);
    return row;
  });
}

/**
 * Takes a decision back, or makes it again. Throws when it has no effect any more: what it changed was changed again since.
 * Taking back what is taken back changes nothing.
 */
export function setUndone(db: Db, id: number, undone: boolean, now: number): DecisionRow {
  return inTransaction(db, () => {
    const row = decisionById(db, id);
    if (!row) throw new AppError('not-found', { what: 'decision' });
    if ((row.undoneAt !== null) === undone) return row;
    const { kind } = row.body;
    if (kind in APPLY) APPLY[kind as ChangeBody['kind']](db, row.subjectId, row.body as never, undone, now);
    const changed = markUndone(db, id, undone ? now : null);
    keepForce(db, changed, undone ? -1 : 1);
    return changed;
  });
}

/** Keeps with a job what its decisions come to, so that nobody has to fold them on every read. */
function keepForce(db: Db, { subject, subjectId, body }: DecisionRow, more: 1 | -1) {
  if (subject !== 'job' || body.kind === 'brief') return;
  countDecision(db, subjectId, more);
  if (body.kind === 'configure') keepSieve(db, subjectId, configuredSteps(db, subjectId));
}

/** Logs values that were changed, each with how it was; values that are as they were are left out. */
export function logChange(
  db: Db,
  subject: DecisionSubject,
  kind: 'brief' | 'search' | 'settings' | 'harvest',
  was: object,
  is: object,
  now: number,
): void {
  const old = was as Record<string, unknown>;
  const changed = Object.entries(is).filter(([key, value]) => JSON.stringify(old[key]) !== JSON.stringify(value));
  if (changed.length === 0) return;
  const before = Object.fromEntries(changed.map(([key]) => [key, old[key] ?? null]));
  addDecision(db, subject, 'you', { kind, before, after: Object.fromEntries(changed) }, now);
}
