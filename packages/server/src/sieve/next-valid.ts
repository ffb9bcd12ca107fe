import { appendEmail, likelyNext, likelyShares, stepIn, usualOrder, type Priced } from '@sieve/core';
import { verifierOf, type Job, type NextValid, type Settings } from '@sieve/contract';
import type { Db } from '../db/open';
import { theJob } from '../jobs/the-job';
import { budgetFor } from '../ledger/budget';
import { findersNow } from '../ledger/plans';
import { spentMeter } from '../ledger/store';
import { experience, USUAL_VERIFIED, waitsAt } from './estimate';
import { orderSoFar } from './lookup-orders';
import { shownOutcome } from './outcomes';

/** What the valid emails of a job cost so far, by who brought them, and what the next ones likely cost. */
export function nextValid(db: Db, jobId: number, settings: Settings, now: number): NextValid {
  const job = theJob(db, jobId);
  const { options } = stepIn(job.sieve, appendEmail);
  const spent = spentMeter(db);
  const { waits } = waitsAt(job, appendEmail.kind);
  const finders = findersNow(spent, settings, waits, now).filter(({ id }) => options.finders.includes(id));
  const priceCents = Math.max(0, ...finders.map((finder) => finder.priceCents));
  const seen = experience(db, options);
  const steps = orderSoFar(db, { ...settings, finders }, options.finders)?.steps ?? [
    { who: 'finders', ...usualOrder(seen, priceCents) },
  ];
  const verifyingCents = (verifierOf(settings)?.priceCents ?? 0) * USUAL_VERIFIED;
  return {
    target: job.targetValid,
    got: gotSoFar(db, job, settings),
    next: likelyNext(waits, likelyShares(seen).byPattern, steps, verifyingCents),
    leftCents: budgetFor(db, jobId, settings, spent)(now).cents,
  };
}

/** The free ones first; each bears its part of what verifiers were paid. */
function gotSoFar(db: Db, { id: jobId, sieve }: Job, { verifiers }: Settings): Priced[] {
  const by = db.outcomes
    .prepare(
      `SELECT iif(via IN ('given', 'pattern'), '', via) AS who, count(*) AS count FROM ${shownOutcome(db, jobId).contacts}
       WHERE verdict = 'valid' AND stop >= ? GROUP BY who`,
    )
    .all(sieve.findIndex(({ kind }) => kind === appendEmail.kind)) as { who: string; count: number }[];
  const paid = spentMeter(db);
  const all = by.reduce((sum, { count }) => sum + count, 0);
  const verifying = verifiers.reduce((sum, { id: who }) => sum + paid({ jobId, who }).cents, 0);
  return by
    .map(({ who, count }) => {
      const cents = who === '' ? 0 : paid({ jobId, who }).cents;
      return { who, count, eachCents: cents / count + verifying / all };
    })
    .sort((a, b) => Number(a.who !== '') - Number(b.who !== '') || a.eachCents - b.eachCents);
}
