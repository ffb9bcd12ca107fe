import { evidenceBetween, MAY_BE_ELSEWHERE } from '@sieve/core';
import type { PairElsewhere } from '@sieve/contract';
import type { Db } from '../db/open';
import { acrossOf, likelyElsewhere } from './elsewhere';
import { shownOutcome } from './outcomes';
import { stepIds } from './rows';
import { fromColumns, type ContactColumns } from './stored-contact';

/** Those of a job whom another one may hold, each beside the likeliest there; of the first `limit` the least certain first. */
export function pairsElsewhere(db: Db, jobId: number, limit: number): { total: number; pairs: PairElsewhere[] } {
  const across = acrossOf(db, jobId);
  if (!across) return { total: 0, pairs: [] };
  const waits = `FROM ${shownOutcome(db, jobId).contacts} WHERE state = 'look' AND code IN (SELECT value FROM json_each(@codes))`;
  const codes = JSON.stringify(MAY_BE_ELSEWHERE);
  const total = db.outcomes.prepare(`SELECT count(*) ${waits}`).pluck().get({ codes }) as number;
  const rows = db.outcomes
    .prepare(`SELECT * ${waits} ORDER BY id LIMIT @limit`)
    .raw()
    .all({ codes, limit }) as ContactColumns[];
  const steps = stepIds(db, jobId);
  const likely = likelyElsewhere(db, jobId, across);
  const pairs = rows.map(fromColumns).flatMap(({ id, recordIds, person, stop }) => {
    const [there] = likely(person);
    if (!there) return [];
    const evidence = there.chance === null ? [] : evidenceBetween(across.weights)(person, there.person);
    return [{ contact: id, step: steps[stop]!, recordIds, person, there, evidence }];
  });
  const doubt = (chance: number | null) => Math.abs((chance ?? 0.5) - 0.5);
  return { total, pairs: pairs.sort((p, q) => doubt(p.there.chance) - doubt(q.there.chance)) };
}
