import {
  applyEdits,
  evidenceOf,
  fullName,
  sortDecisions,
  STEP_KINDS,
  tidyRow,
  type Column,
  type Weights,
} from '@sieve/core';
import type { ContactRow, ContactView, PairView, RecordView, RowPage, RowQuery, TitleGroup } from '@sieve/contract';
import type { Db } from '../db/open';
import { shownOutcome } from './outcomes';
import { fromColumns, type ContactColumns, type StoredContact } from './stored-contact';
import { effectiveSteps, jobRow, standingDecisions } from '../jobs/store';

const ORDER: Record<RowQuery['sort'], string> = {
  id: 'id',
  lastName: 'lastName',
  title: 'title',
  company: 'company',
  city: 'city',
  email: 'email',
  verdict: 'verdict',
  step: 'stop',
  records: 'records',
};

/** One page of the grid: the contacts of one fate at one step. Passing a step means stopping later, or nowhere. */
export function rowPage(db: Db, jobId: number, query: RowQuery): RowPage {
  const { contacts, search } = shownOutcome(db, jobId);
  const words = query.q.toLowerCase().split(/\s+/).filter(Boolean);
  const fate = query.fate === 'pass' ? 'stop > @step' : 'stop = @step AND state = @fate';
  const found = `FROM ${search} WHERE ${[fate, ...words.map((_, i) => `text LIKE @q${i} ESCAPE '\\'`)].join(' AND ')}`;
  const from =
    words.length === 0 ? `FROM ${contacts} WHERE ${fate}` : `FROM ${contacts} WHERE id IN (SELECT id ${found})`;
  const params = {
    step: STEP_KINDS.indexOf(query.step),
    fate: query.fate,
    ...Object.fromEntries(words.map((word, i) => [`q${i}`, `%${word.replace(/[\\%_]/g, '\\$&')}%`])),
  };
  const client = db.outcomes;
  const total = client
    .prepare(`SELECT count(*) ${words.length === 0 ? from : found}`)
    .pluck()
    .get(params) as number;
  const direction = query.desc ? 'DESC' : 'ASC';
  const order = (table: string) =>
    query.sort === 'id'
      ? `${table}id ${direction}`
      : `${table}${ORDER[query.sort]} ${direction}, ${table}id ${direction}`;
  const rows = client
    .prepare(
      `SELECT c.* FROM (SELECT id AS at ${from} ORDER BY ${order('')} LIMIT @limit OFFSET @offset)
       JOIN ${contacts} c ON c.id = at ORDER BY ${order('c.')}`,
    )
    .raw()
    .all({ ...params, limit: query.limit, offset: query.offset }) as ContactColumns[];
  return { total, rows: rows.map((columns) => toRow(fromColumns(columns))) };
}

function toRow({ person, ...contact }: StoredContact): ContactRow {
  return {
    id: contact.id,
    name: fullName(person),
    firstName: [person.firstName, person.middleName].filter(Boolean).join(' '),
    lastName: person.lastName,
    title: person.title,
    company: person.company,
    place: [person.city, person.region, person.country].filter(Boolean).join(', '),
    domain: person.domain,
    email: person.email,
    phone: person.phone,
    verdict: contact.verdict,
    reason: contact.reason,
    via: contact.via,
    source: contact.sources,
    records: contact.recordIds.length,
    fate: {
      step: STEP_KINDS[contact.stop] ?? null,
      state: contact.state,
      code: contact.code,
      why: contact.why,
    },
  };
}

/** One contact with its records, its changes and what brought it together. */
export function contactView(db: Db, jobId: number, id: number): ContactView | undefined {
  const { contacts, pairs } = shownOutcome(db, jobId);
  const columns = db.outcomes.prepare(`SELECT * FROM ${contacts} WHERE id = ?`).raw().get(id) as
    ContactColumns | undefined;
  if (!columns) return undefined;
  const contact = fromColumns(columns);
  const { person, extra, from, mergeChance, alternatives, recordIds } = contact;
  const merges = db.outcomes
    .prepare(`SELECT a, b, chance FROM ${pairs} WHERE merged = 1 AND a IN (SELECT value FROM json_each(?)) LIMIT 50`)
    .all(JSON.stringify(recordIds)) as { a: number; b: number; chance: number }[];
  const viewOf = recordViews(db, jobId);
  return {
    ...toRow(contact),
    person,
    extra,
    from,
    mergeChance,
    alternatives,
    recordIds,
    records: recordIds.length,
    recordViews: recordIds.slice(0, 50).flatMap((record) => viewOf(record) ?? []),
    evidence: explained(merges, viewOf, weightsOf(db, jobId)).map((pair) => ({
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
  const from = `FROM ${shownOutcome(db, jobId).pairs} WHERE merged = 0`;
  const rows = db.outcomes.prepare(`SELECT a, b, chance ${from} ORDER BY abs(chance - 0.5), a LIMIT ?`).all(limit) as {
    a: number;
    b: number;
    chance: number;
  }[];
  const total = db.outcomes.prepare(`SELECT count(*) ${from}`).pluck().get() as number;
  return { total, pairs: explained(rows, recordViews(db, jobId), weightsOf(db, jobId)) };
}

/** Titles of what came to the screen, counted, most common first. */
export function titleGroups(
  db: Db,
  jobId: number,
  said: ReadonlyMap<string, 'keep' | 'aside'>,
  keyOf: (title: string) => string,
): TitleGroup[] {
  const rows = db.outcomes
    .prepare(
      `SELECT title, count(*) AS count, sum(stop = 2 AND state = 'aside') AS aside FROM ${shownOutcome(db, jobId).contacts}
       WHERE stop >= 2 AND title <> '' GROUP BY lower(title) ORDER BY count DESC, title LIMIT 500`,
    )
    .all() as { title: string; count: number; aside: number }[];
  return rows.map((row) => ({ ...row, fate: said.get(keyOf(row.title)) ?? '' }));
}
