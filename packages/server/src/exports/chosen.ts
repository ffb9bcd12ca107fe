import type { ExportRow, Person } from '@sieve/core';
import type { ExportLayout, ExportPreview } from '@sieve/contract';
import type { Db } from '../db/open';
import { shownOutcome } from '../sieve/outcomes';
import { fromColumns, type ContactColumns } from '../sieve/stored-contact';
import { FRESH_MS } from '../outside/facts';

export interface ChosenContact {
  id: number;
  recordIds: number[];
  person: Person;
  extra: Record<string, string>;
  verdict: ExportLayout['verdicts'][number];
  reason: string;
  via: string;
  sources: string;
}

interface Candidate extends ChosenContact {
  exportedBefore: boolean;
  suppressed: boolean;
  stale: boolean;
}

/**
 * Everybody who could go: contacts that passed, or that only their verdict or the lack of an address stopped. By last
 * name, so that the batches are stable.
 */
function* candidates(db: Db, jobId: number, now: number): Generator<Candidate> {
  const client = db.$client;
  const exported = new Set(
    client.prepare('SELECT record_id FROM export_rows WHERE job_id = ?').pluck().all(jobId) as number[],
  );
  const suppressed = new Set(client.prepare('SELECT value FROM suppressions').pluck().all() as string[]);
  const rows = db.outcomes
    .prepare(
      `SELECT * FROM ${shownOutcome(db, jobId).contacts}
       WHERE state = 'pass' OR code IN ('verdict', 'no-address-found', 'no-name-or-domain')
       ORDER BY lastName, firstName, id`,
    )
    .raw()
    .iterate() as Iterable<ContactColumns>;
  for (const columns of rows) {
    const { id, recordIds, person, extra, verdict, reason, via, sources, askedAt, state } = fromColumns(columns);
    if (verdict === 'invalid' && state !== 'pass') continue;
    const domain = person.email.slice(person.email.indexOf('@') + 1);
    yield {
      id,
      recordIds,
      person,
      extra,
      verdict: person.email === '' ? 'none' : verdict === '' || verdict === 'invalid' ? 'unknown' : verdict,
      reason,
      via,
      sources,
      exportedBefore: recordIds.some((recordId) => exported.has(recordId)),
      suppressed: suppressed.has(person.email) || suppressed.has(domain) || suppressed.has(person.domain),
      stale: askedAt > 0 && now - askedAt > FRESH_MS,
    };
  }
}

const goes = (c: Candidate, layout: ExportLayout) =>
  layout.verdicts.includes(c.verdict) && !c.suppressed && !c.stale && !(layout.onlyNew && c.exportedBefore);

export const chosenContacts = (db: Db, jobId: number, layout: ExportLayout, now: number): ChosenContact[] =>
  [...candidates(db, jobId, now)].filter((c) => goes(c, layout));

/** Who goes and who is held back, from the same rows as the export itself. */
export function exportCounts(
  db: Db,
  jobId: number,
  layout: ExportLayout,
  now: number,
): { chosen: ChosenContact[] } & Pick<ExportPreview, 'counts' | 'heldBack' | 'ownFields'> {
  const counts: ExportPreview['counts'] = { valid: 0, risky: 0, unknown: 0, none: 0 };
  const heldBack: ExportPreview['heldBack'] = { exportedBefore: 0, risky: 0, suppressed: 0, stale: 0 };
  const own = new Set<string>();
  const chosen: ChosenContact[] = [];
  for (const c of candidates(db, jobId, now)) {
    counts[c.verdict]++;
    for (const name of Object.keys(c.extra)) own.add(name);
    if (goes(c, layout)) chosen.push(c);
    else if (c.suppressed) heldBack.suppressed++;
    else if (c.stale) heldBack.stale++;
    else if (!layout.verdicts.includes(c.verdict)) heldBack.risky += c.verdict === 'risky' ? 1 : 0;
    else heldBack.exportedBefore++;
  }
  return { chosen, counts, heldBack, ownFields: [...own].sort() };
}

export const toExportRow = (c: ChosenContact): ExportRow => ({
  person: c.person,
  extra: c.extra,
  verdict: c.verdict,
  verdictReason: c.reason,
  emailVia: c.via,
  sources: c.sources,
});
