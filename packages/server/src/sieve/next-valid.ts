import { appendEmail, likelyNext, likelyShares, usualOrder, type Priced } from '@sieve/core';
import type { Job, NextValid, Settings } from '@sieve/contract';
import type { Db } from '../db/open';
import { theJob } from '../jobs/the-job';
import type { Spent } from '../ledger/store';
import { knownOfFinders, USUAL_VERIFIED, waitsAt } from './estimate';
import { shownOutcome } from './outcomes';

/** What the valid emails of a job cost so far, by who brought them, and what the next ones likely cost. */
export function nextValid(db: Db, jobId: number, settings: Settings, now: number): NextValid {
  const job = theJob(db, jobId);
  const { waits } = waitsAt(job, appendEmail.kind);
  const { seen, order, priceCents, verifierCents, left, spent } = knownOfFinders(db, job, settings, waits, now);
  const steps = order?.steps ?? [{ who: 'finders', ...usualOrder(seen, priceCents) }];
  return {
    target: job.targetValid,
    got: gotSoFar(db, job, settings, spent),
    next: likelyNext(waits, likelyShares(seen).byPattern, steps, verifierCents * USUAL_VERIFIED),
    leftCents: left.cents,
  };
}

/** The free ones first; each bears its part of what verifiers were paid. */
function gotSoFar(db: Db, { id: jobId, sieve }: Job, { verifiers }: Settings, spent: Spent): Priced[] {
  const by = db.outcomes
    .prepare(
      `SELECT iif(via IN ('given', 'pattern'), '', via) AS who, count(*) AS count FROM ${shownOutcome(db, jobId).contacts}
       WHERE verdict = 'valid' AND stop >= ? GROUP BY who`,
    )
    .all(sieve.findIndex(({ kind }) => kind === appendEmail.kind)) as { who: string; count: number }[];
  const all = by.reduce((sum, { count }) => sum + count, 0);
  const verifying = verifiers.reduce((sum, { id: who }) => sum + spent({ jobId, who }).cents, 0);
  return by
    .map(({ who, count }) => {
      const cents = who === '' ? 0 : spent({ jobId, who }).cents;
      return { who, count, eachCents: cents / count + verifying / all };
    })
    .sort((a, b) => Number(a.who !== '') - Number(b.who !== '') || a.eachCents - b.eachCents);
}
