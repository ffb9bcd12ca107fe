import {
  appendEmail,
  appendPhone,
  estimateAppend,
  estimatePhones,
  mostQuestions,
  stepIn,
  type AppendEmailOptions,
  type Experience,
  type PhoneExperience,
} from '@sieve/core';
import { verifierOf, type AskEstimate, type Job, type Settings } from '@sieve/contract';
import type { Db } from '../db/open';
import { budgetFor } from '../ledger/budget';
import { findersNow } from '../ledger/plans';
import { spentMeter, spentWith } from '../ledger/store';
import { timedAsks } from '../runs/store';
import { theJob } from '../jobs/the-job';
import { orderSoFar } from './lookup-orders';
import { shownOutcomes } from './outcomes';
import { REST_FIELDS } from './stored-contact';

/**
 * What appending to a job would cost, take and bring.
 *
 * @param contacts to be asked about; those that wait for it, when it is left out
 */
export function estimateFor(db: Db, jobId: number, settings: Settings, now: number, contacts?: number): AskEstimate {
  const job = theJob(db, jobId);
  const { options } = stepIn(job.sieve, appendEmail);
  const { step, waits } = waitsAt(job, appendEmail.kind);
  const waiting = contacts ?? waits;
  const { finders, priceCents, seen, verifierCents, order, left } = knownOfFinders(db, job, settings, waiting, now);
  const { cents: leftCents, of: leftOf } = left;
  const timed = timedAsks(db, step);
  // The domain, each address made from the name, each that a finder says.
  const mostEachCents = mostEach(finders) + verifierCents * (1 + options.candidates + finders.length);
  return {
    ...estimateAppend(
      waiting,
      seen,
      priceCents,
      leftCents,
      timed,
      mostEachCents,
      order?.all ?? null,
      verifierCents * USUAL_VERIFIED,
    ),
    rests: { lookups: seen.tried, timed: timed.contacts },
    leftCents,
    leftOf,
    mostEachCents,
    finders: finders.map(({ name }) => name),
  };
}

/** What is known of the finders of a job for so many contacts: as they are paid now, what they and patterns gave, and what the budget leaves. */
export function knownOfFinders(db: Db, job: Job, settings: Settings, contacts: number, now: number) {
  const { options } = stepIn(job.sieve, appendEmail);
  const spent = spentMeter(db);
  const asPaid = { ...settings, finders: findersNow(spent, settings, contacts, now) };
  const finders = asPaid.finders.filter(({ id }) => options.finders.includes(id));
  return {
    finders,
    priceCents: Math.max(0, ...finders.map((finder) => finder.priceCents)),
    seen: experience(db, options),
    verifierCents: verifierOf(settings)?.priceCents ?? 0,
    order: orderSoFar(db, asPaid, options.finders),
    left: budgetFor(db, job.id, settings, spent)(now),
    spent,
  };
}

/** What asking for the phones that a job lacks would cost, take and bring. */
export function phoneEstimate(db: Db, jobId: number, settings: Settings, now: number): AskEstimate {
  const job = theJob(db, jobId);
  const { options } = stepIn(job.sieve, appendPhone);
  const services = settings.phoneServices.filter(({ id }) => options.services.includes(id));
  const { cents: leftCents, of: leftOf } = budgetFor(db, jobId, settings)(now);
  const { step, waits } = waitsAt(job, appendPhone.kind);
  const seen = phoneExperience(db, settings);
  const timed = timedAsks(db, step);
  const questions = mostQuestions(options);
  return {
    ...estimatePhones(waits, seen, services, questions, leftCents, timed),
    rests: { lookups: seen.tried, timed: timed.contacts },
    leftCents,
    leftOf,
    mostEachCents: questions * services.reduce((sum, { priceCents }) => sum + priceCents, 0),
    finders: services.map(({ name }) => name),
  };
}

/** The step of a kind, and how many wait at it. */
export function waitsAt({ sieve, summary }: Job, kind: string): { step: string; waits: number } {
  const step = sieve.find((one) => one.kind === kind)?.id ?? '';
  return { step, waits: summary?.steps.find(({ id }) => id === step)?.waits ?? 0 };
}

const PHONE = `json_extract(rest, '$[${REST_FIELDS.indexOf('phone')}]`;

/** What looking for phones has brought and cost so far, over all jobs. */
function phoneExperience(db: Db, { phoneServices }: Settings): PhoneExperience {
  const [tried, found] = [`${PHONE}.kind') = 'none'`, `${PHONE}.pass') IS NOT NULL`];
  const all = shownOutcomes(db).map(
    ({ contacts }) =>
      db.outcomes
        .prepare(
          `SELECT coalesce(sum(${tried} OR ${found}), 0) AS tried, coalesce(sum(${found}), 0) AS found FROM ${contacts}`,
        )
        .get() as Pick<PhoneExperience, 'tried' | 'found'>,
  );
  return {
    tried: all.reduce((sum, one) => sum + one.tried, 0),
    found: all.reduce((sum, one) => sum + one.found, 0),
    ...spentWith(
      db,
      phoneServices.map(({ id }) => id),
    ),
  };
}

/** Addresses that are verified for one contact. Common practice, no source. */
export const USUAL_VERIFIED = 2;

/** What one contact can cost: every finder that charges for answers or questions, and the dearest that charges for what verifies. */
function mostEach(finders: Settings['finders']): number {
  const always = finders.filter(({ pays }) => pays !== 'valid').reduce((sum, { priceCents }) => sum + priceCents, 0);
  return always + Math.max(0, ...finders.filter(({ pays }) => pays === 'valid').map(({ priceCents }) => priceCents));
}

/** What append has brought so far, over all jobs. */
function experience(db: Db, { candidates }: AppendEmailOptions): Experience {
  const all = shownOutcomes(db).map(
    ({ contacts }) =>
      db.outcomes
        .prepare(
          `SELECT count(*) AS tried, coalesce(sum(via = 'pattern' AND verdict = 'valid'), 0) AS byPattern,
             coalesce(sum(via NOT IN ('pattern', 'given', '') AND verdict = 'valid'), 0) AS byFinder
           FROM ${contacts} WHERE via NOT IN ('given', '') OR code = 'no-address-found'`,
        )
        .get() as Experience,
  );
  const sum = (of: 'tried' | 'byPattern' | 'byFinder') => all.reduce((total, one) => total + one[of], 0);
  return {
    tried: sum('tried'),
    byPattern: sum('byPattern'),
    byFinder: sum('byFinder'),
    withoutPatterns: candidates === 0,
  };
}
