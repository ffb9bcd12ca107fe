import { firmRules, NOTHING_KNOWN, type CompanyOptions } from '@sieve/core';
import type { FirmEffect } from '@sieve/contract';
import type { Db } from '../db/open';
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
  const rows = db.outcomes
    .prepare(`SELECT * FROM ${shownOutcome(db, jobId).contacts} WHERE stop >= ?`)
    .raw()
    .iterate(at) as Iterable<ContactColumns>;
  for (const columns of rows) {
    const { person, firm } = fromColumns(columns);
    const rule = breaks(person, firm ?? NOTHING_KNOWN);
    out.came++;
    if (rule) out.rules[rule.code] = (out.rules[rule.code] ?? 0) + 1;
    else out.pass++;
  }
  return out;
}
