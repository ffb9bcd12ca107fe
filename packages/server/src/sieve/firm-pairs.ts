import { companyPairs, JUDGE_FROM, sortDecisions } from '@sieve/core';
import type { FirmPairs } from '@sieve/contract';
import type { Db } from '../db/open';
import { standingDecisions } from '../decisions/store';
import { stepOf, type NamedFirm } from './firms';
import { placeOf } from './firms-of-contacts';
import { FIRM_KEY } from './stored-contact';
import { shownOutcome } from './outcomes';

interface Named extends NamedFirm {
  people: number;
}

/** Companies of those who came to a step of which nobody has said whether they are one, the least certain pairs first. */
export function firmPairs(db: Db, jobId: number, step: string, most: number): FirmPairs {
  const { at } = stepOf(db, jobId, step);
  if (!Number.isFinite(at)) return { total: 0, pairs: [] };
  const named = db.outcomes
    .prepare(
      `SELECT ${FIRM_KEY} AS key, company AS name, domain, max(city) AS city, max(country) AS country, count(*) AS people
       FROM ${shownOutcome(db, jobId).contacts} WHERE stop >= ? AND company <> '' AND key <> '' GROUP BY key, company, domain`,
    )
    .all(at) as Named[];
  const pairKey = (a: string, b: string) => (a < b ? `${a}\n${b}` : `${b}\n${a}`);
  const said = new Set(sortDecisions(standingDecisions(db, jobId)).companies.different.map(([a, b]) => pairKey(a, b)));
  const pairs: FirmPairs['pairs'] = [];
  for (const { a, b, chance } of companyPairs(named.map((one) => ({ ...one, link: '' })))) {
    const [one, two] = [named[a]!, named[b]!];
    const key = pairKey(one.key, two.key);
    if (chance < JUDGE_FROM || one.key === two.key || said.has(key)) continue;
    // The likeliest spelling of a pair comes first.
    said.add(key);
    pairs.push({ chance, a: sideOf(one), b: sideOf(two) });
  }
  pairs.sort((p, q) => Math.abs(p.chance - 0.5) - Math.abs(q.chance - 0.5));
  return { total: pairs.length, pairs: pairs.slice(0, most) };
}

const sideOf = ({ city, country, ...firm }: Named) => ({ ...firm, place: placeOf(city, country) });
