import { ANY_AGE, competitorLike, firmRules, NOTHING_KNOWN, remembered, type CompanyOptions } from '@sieve/core';
import type { FirmEffect } from '@sieve/contract';
import type { Db } from '../db/open';
import { factsAt } from '../outside/facts';
import { stepOf } from './firms';
import { shownOutcome } from './outcomes';
import { fromColumns, type ContactColumns } from './stored-contact';

/**
 * What other rules about companies would take of those who came to a step when the job was sifted last, by what is known of their companies now. A
 * contact counts at the first rule that their company breaks; what websites answer and what was decided by hand are left aside.
 */
export function firmEffect(db: Db, jobId: number, step: string, options: CompanyOptions): FirmEffect {
  const out: FirmEffect = { came: 0, pass: 0, rules: {} };
  const { at } = stepOf(db, jobId, step);
  if (!Number.isFinite(at)) return out;
  const breaks = firmRules(options);
  const { contacts } = shownOutcome(db, jobId);
  const rows = db.outcomes
    .prepare(`SELECT * FROM ${contacts} WHERE stop >= ?`)
    .raw()
    .iterate(at) as Iterable<ContactColumns>;
  const domains = db.outcomes.prepare(`SELECT DISTINCT domain FROM ${contacts}`).pluck().all() as string[];
  const likeCompetitor = competitorLike(options, domains, factsAt(db, 0, ANY_AGE));
  const isLike = remembered((domain) => {
    const like = likeCompetitor(domain);
    return like && !('ask' in like) ? 'yes' : '';
  });
  for (const columns of rows) {
    const { person, firm } = fromColumns(columns);
    const code = breaks(person, firm ?? NOTHING_KNOWN)?.code ?? (isLike(person.domain) ? 'like-competitor' : null);
    out.came++;
    if (code) out.rules[code] = (out.rules[code] ?? 0) + 1;
    else out.pass++;
  }
  return out;
}
