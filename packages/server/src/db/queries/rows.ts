import {
  applyEdits,
  evidenceOf,
  sortDecisions,
  STEP_KINDS,
  tidyRow,
  type Column,
  type Fate,
  type Person,
  type Weights,
} from '@sieve/core';
import type { ContactRow, ContactView, PairView, RecordView, RowPage, RowQuery, TitleGroup } from '@sieve/contract';
import type { Db } from '../open';
import { effectiveSteps, jobRow, standingDecisions } from './jobs';

interface Row {
  id: number;
  record_ids: string;
  person: string;
  extra: string;
  value_from: string;
  sources: string;
  merge_chance: number;
  via: string;
  alternatives: string;
  verdict: string;
  reason: string;
  stop: number;
  state: Fate['state'];
  code: Fate['code'];
  why: string;
}

const ORDER: Record<RowQuery['sort'], string> = {
  id: 'id',
  lastName: 'last_name',
  title: 'title',
  company: 'company',
  city: 'city',
  email: 'email',
  verdict: 'verdict',
  step: 'stop',
  records: 'records',
};

/** The contacts of the outcome that is shown; takes the job's id. */
export const OF_JOB = 'outcome = (SELECT outcome FROM jobs WHERE id = @jobId)';

/** One page of the grid: the contacts of one fate at one step. Passing a step means stopping later, or nowhere. */
export function rowPage(db: Db, jobId: number, query: RowQuery): RowPage {
  const words = query.q.toLowerCase().split(/\s+/).filter(Boolean);
  const where = [
    OF_JOB,
    query.fate === 'pass' ? 'stop > @step' : 'stop = @step AND state = @fate',
    ...words.map((_, i) => `search LIKE @q${i} ESCAPE '\\'`),
  ].join(' AND ');
  const params = {
    jobId,
    step: STEP_KINDS.indexOf(query.step),
    fate: query.fate,
    ...Object.fromEntries(words.map((word, i) => [`q${i}`, `%${word.replace(/[\\%_]/g, '\\$&')}%`])),
  };
  const client = db.$client;
  const total = client.prepare(`SELECT count(*) FROM contacts WHERE ${where}`).pluck().get(params) as number;
  const direction = query.desc ? 'DESC' : 'ASC';
  const order = (table: string) =>
    query.sort === 'id'
      ? `${table}id ${direction}`
      : `${table}${ORDER[query.sort]} ${direction}, ${table}id ${direction}`;
  const rows = client
    .prepare(
      `SELECT c.* FROM (SELECT rowid AS at FROM contacts WHERE ${where} ORDER BY ${order('')} LIMIT @limit OFFSET @offset)
       JOIN contacts c ON c.rowid = at ORDER BY ${order('c.')}`,
    )
    .all({ ...params, limit: query.limit, offset: query.offset }) as Row[];
  return { total, rows: rows.map(toRow) };
}

function toRow(row: Row): ContactRow {
  const person = JSON.parse(row.person) as Person;
  return {
    id: row.id,
    name: [person.firstName, person.middleName, person.lastName].filter(Boolean).join(' '),
    firstName: [person.firstName, person.middleName].filter(Boolean).join(' '),
    lastName: person.lastName,
    title: person.title,
    company: person.company,
    place: [person.city, person.region, person.country].filter(Boolean).join(', '),
    domain: person.domain,
    email: person.email,
    phone: person.phone,
    verdict: row.verdict,
    reason: row.reason,
    via: row.via,
    source: row.sources,
    records: (JSON.parse(row.record_ids) as number[]).length,
    fate: {
      step: STEP_KINDS[row.stop] ?? null,
      state: row.state,
      code: row.code,
      why: JSON.parse(row.why) as Fate['why'],
    },
  };
}

/** One contact with its records, its changes and what brought it together. `id` is any of its records. */
export function contactView(db: Db, jobId: number, id: number): ContactView | undefined {
  const client = db.$client;
  const row = client.prepare(`SELECT * FROM contacts WHERE ${OF_JOB} AND id = @id`).get({ jobId, id }) as
    Row | undefined;
  if (!row) return undefined;
  const recordIds = JSON.parse(row.record_ids) as number[];
  const pairs = client
    .prepare(
      `SELECT a, b, chance FROM pairs WHERE ${OF_JOB} AND merged = 1 AND a IN (SELECT value FROM json_each(@ids)) LIMIT 50`,
    )
    .all({ jobId, ids: row.record_ids }) as { a: number; b: number; chance: number }[];
  const viewOf = recordViews(db, jobId);
  return {
    ...toRow(row),
    person: JSON.parse(row.person) as Person,
    extra: JSON.parse(row.extra) as Record<string, string>,
    from: JSON.parse(row.value_from) as ContactView['from'],
    mergeChance: row.merge_chance,
    alternatives: JSON.parse(row.alternatives) as string[],
    recordIds,
    records: recordIds.length,
    recordViews: recordIds.slice(0, 50).flatMap((record) => viewOf(record) ?? []),
    evidence: explained(pairs, viewOf, weightsOf(db, jobId)).map((pair) => ({
      a: pair.a.id,
      b: pair.b.id,
      chance: pair.chance,
      evidence: pair.evidence,
    })),
  };
}

/** Shows records of a job as they came and as they are after tidying and what a person wrote. */
function recordViews(db: Db, jobId: number): (id: number) => RecordView | undefined {
  const standing = standingDecisions(db, jobId);
  const said = sortDecisions(standing);
  const { phoneCountry } = effectiveSteps(jobRow(db, jobId)!.steps, standing).tidy;
  const select = db.$client.prepare(
    `SELECT r.id, r.line, r.cells, s.name, s.columns FROM records r JOIN sources s ON s.id = r.source_id
     WHERE r.id = ? AND s.job_id = ?`,
  );
  return (id) => {
    const row = select.get(id, jobId) as
      { id: number; line: number; cells: string; name: string; columns: string } | undefined;
    if (!row) return undefined;
    const columns = JSON.parse(row.columns) as Column[];
    const cells = JSON.parse(row.cells) as string[];
    const { person, changes, issues } = applyEdits(id, tidyRow(cells, columns, phoneCountry), said);
    return {
      id,
      source: row.name,
      line: row.line,
      cells: cells.map((value, i) => ({ name: columns[i]?.name ?? `Column ${i + 1}`, value })),
      person,
      changes,
      issues,
    };
  };
}

const weightsOf = (db: Db, jobId: number): Weights | null => jobRow(db, jobId)!.weights;

/** Pairs with what speaks for and against them. */
function explained(
  pairs: readonly { a: number; b: number; chance: number }[],
  view: (id: number) => RecordView | undefined,
  weights: Weights | null,
): PairView[] {
  return pairs.flatMap(({ a: idA, b: idB, chance }) => {
    const a = view(idA);
    const b = view(idB);
    return a && b ? [{ a, b, chance, evidence: weights ? evidenceOf(a.person, b.person, weights) : [] }] : [];
  });
}

/** Pairs to judge, least certain first. */
export function pairsToJudge(db: Db, jobId: number, limit: number): { total: number; pairs: PairView[] } {
  const from = `FROM pairs WHERE ${OF_JOB} AND merged = 0`;
  const rows = db.$client
    .prepare(`SELECT a, b, chance ${from} ORDER BY abs(chance - 0.5), a LIMIT @limit`)
    .all({ jobId, limit }) as { a: number; b: number; chance: number }[];
  const total = db.$client.prepare(`SELECT count(*) ${from}`).pluck().get({ jobId }) as number;
  return { total, pairs: explained(rows, recordViews(db, jobId), weightsOf(db, jobId)) };
}

/** Titles of what came to the screen, counted, most common first. */
export function titleGroups(
  db: Db,
  jobId: number,
  said: ReadonlyMap<string, 'keep' | 'aside'>,
  keyOf: (title: string) => string,
): TitleGroup[] {
  const rows = db.$client
    .prepare(
      `SELECT title, count(*) AS count, sum(stop = 2 AND state = 'aside') AS aside FROM contacts
       WHERE ${OF_JOB} AND stop >= 2 AND title <> '' GROUP BY lower(title) ORDER BY count DESC, title LIMIT 500`,
    )
    .all({ jobId }) as { title: string; count: number; aside: number }[];
  return rows.map((row) => ({ ...row, fate: said.get(keyOf(row.title)) ?? '' }));
}
