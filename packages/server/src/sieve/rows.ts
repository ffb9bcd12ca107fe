import {
  applyEdits,
  briefParts,
  canonicalLink,
  evidenceOf,
  fullName,
  groupKey,
  normaliseEmail,
  screen,
  sortDecisions,
  stepIn,
  tidier,
  tidy,
  titleReader,
  type Link,
  type Person,
  type Weights,
  type WordLists,
} from '@sieve/core';
import type {
  CompanyPage,
  ContactRow,
  ContactView,
  ContactGroup,
  FoundContact,
  GroupQuery,
  PairView,
  RecordView,
  RowPage,
  RowQuery,
} from '@sieve/contract';
import type { Db } from '../db/open';
import { standingDecisions } from '../decisions/store';
import { jobRow, sieveOf } from '../jobs/store';
import { contactsKnownBy } from '../register/register';
import { ownFieldsIn, recordOf } from '../sources/store';
import { readCompanies, shownOutcome, shownOutcomes } from './outcomes';
import { possibleProfiles } from './possible-profiles';
import { REASON_SQL } from './reason-of';
import { fromColumns, REST_FIELDS, STOP_PASSED, type ContactColumns, type StoredContact } from './stored-contact';

const ORDER: Record<Exclude<RowQuery['sort'], 'own'>, string> = {
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

/** The value of the field of the person's own that is called @own. */
const OWN_VALUE = `(SELECT value FROM json_each(rest, '$[${REST_FIELDS.indexOf('extra')}]') WHERE key = @own)`;

/** The value of an own field, as it is sorted by; who has none comes first. */
function ownOrder(db: Db, jobId: number, own: string | undefined): string {
  const value = OWN_VALUE;
  const isNumber = ownFieldsIn(db, jobId).find(({ name }) => name === own)?.type === 'number';
  return isNumber
    ? `coalesce(CASE WHEN ${value} GLOB '*[^0-9.-]*' THEN NULL ELSE CAST(${value} AS REAL) END, -1e300)`
    : `coalesce(${value}, '')`;
}

/** One page of the grid: the contacts of one fate at one step. Passing a step means stopping later, or nowhere. */
export function rowPage(db: Db, jobId: number, query: RowQuery): RowPage {
  const { contacts, search } = shownOutcome(db, jobId);
  const words = query.q.toLowerCase().split(/\s+/).filter(Boolean);
  const fate = query.fate === 'pass' ? 'stop > @step' : 'stop = @step AND state = @fate';
  const chosen =
    query.why === undefined ? fate : `id IN (SELECT id FROM ${contacts} WHERE ${fate} AND ${REASON_SQL} = @why)`;
  const found = `FROM ${search} WHERE ${[chosen, ...words.map((_, i) => `text LIKE @q${i} ESCAPE '\\'`)].join(' AND ')}`;
  const from =
    words.length === 0 ? `FROM ${contacts} WHERE ${chosen}` : `FROM ${contacts} WHERE id IN (SELECT id ${found})`;
  const params = {
    step: stepPosition(db, jobId, query.step),
    fate: query.fate,
    own: query.own ?? '',
    why: query.why,
    ...Object.fromEntries(words.map((word, i) => [`q${i}`, `%${word.replace(/[\\%_]/g, '\\$&')}%`])),
  };
  const client = db.outcomes;
  const total = client
    .prepare(`SELECT count(*) ${words.length === 0 ? from : found}`)
    .pluck()
    .get(params) as number;
  const direction = query.desc ? 'DESC' : 'ASC';
  const column = query.sort === 'own' ? ownOrder(db, jobId, query.own) : ORDER[query.sort];
  const rows = client
    .prepare(
      `SELECT * FROM ${contacts} WHERE id IN
         (SELECT id ${from} ORDER BY ${column} ${direction}, id ${direction} LIMIT @limit OFFSET @offset)
       ORDER BY ${column} ${direction}, id ${direction}`,
    )
    .raw()
    .all({ ...params, limit: query.limit, offset: query.offset }) as ContactColumns[];
  /** How many stand before a contact in the list; null for one that is not in it. */
  const placeOf = (id: number): number | null => {
    const before = `(${column}, id) ${query.desc ? '>' : '<'} (SELECT ${column}, id FROM ${contacts} WHERE id = @id)`;
    const isIn = client.prepare(`SELECT 1 ${from} AND id = @id`).get({ ...params, id }) !== undefined;
    return isIn
      ? (client
          .prepare(`SELECT count(*) ${from} AND ${before}`)
          .pluck()
          .get({ ...params, id }) as number)
      : null;
  };
  const steps = stepIds(db, jobId);
  return {
    total,
    rows: rows.map((columns) => toRow(fromColumns(columns), steps, query.own)),
    place: query.placeOf === undefined ? null : placeOf(query.placeOf),
  };
}

export const stepIds = (db: Db, jobId: number): string[] => sieveOf(db, jobId).map(({ id }) => id);

/** Where a contact of a job stands in its sieve. */
export function fateIn(db: Db, jobId: number, id: number): ContactRow['fate'] | undefined {
  const contact = storedContact(db, jobId, id);
  return contact && toRow(contact, stepIds(db, jobId)).fate;
}

export function storedContact(db: Db, jobId: number, id: number): StoredContact | undefined {
  const columns = db.outcomes
    .prepare(`SELECT * FROM ${shownOutcome(db, jobId).contacts} WHERE id = ?`)
    .raw()
    .get(id) as ContactColumns | undefined;
  return columns && fromColumns(columns);
}

/** Names of some contacts of a job, by their ids; of those that are not there now, none. */
export const contactNames = (db: Db, jobId: number, ids: readonly number[]): Map<number, string> =>
  new Map(
    (
      db.outcomes
        .prepare(
          `SELECT id, firstName, middleName, lastName FROM ${shownOutcome(db, jobId).contacts}
           WHERE id IN (SELECT value FROM json_each(?))`,
        )
        .all(JSON.stringify(ids)) as ({ id: number } & Parameters<typeof fullName>[0])[]
    ).map((contact) => [contact.id, fullName(contact)]),
  );

/** Where a step stands in a job's sieve; behind every contact when it is not in it. */
function stepPosition(db: Db, jobId: number, step: string): number {
  const position = stepIds(db, jobId).indexOf(step);
  return position < 0 ? STOP_PASSED + 1 : position;
}

function toRow({ person, ...contact }: StoredContact, steps: readonly string[], own = ''): ContactRow {
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
    knownPhone: contact.phone,
    profile: person.profile,
    profileSure: contact.found.profile ?? null,
    verdict: contact.verdict,
    reason: contact.reason,
    askedAt: contact.askedAt,
    via: contact.via,
    source: contact.sources,
    records: contact.recordIds.length,
    own: Object.hasOwn(contact.extra, own) ? contact.extra[own]! : '',
    fate: {
      step: steps[contact.stop] ?? null,
      state: contact.state,
      code: contact.code,
      why: contact.why,
    },
  };
}

/** One contact with its records, its changes and what brought it together. */
export function contactView(db: Db, jobId: number, id: number, lists: WordLists): ContactView | undefined {
  const contact = storedContact(db, jobId, id);
  if (!contact) return undefined;
  const { pairs } = shownOutcome(db, jobId);
  const { person, extra, from, mergeChance, alternatives, found, filledBy, firm, recordIds } = contact;
  const merges = db.outcomes
    .prepare(
      `SELECT a, b, chance, pattern FROM ${pairs} WHERE merged = 1 AND a IN (SELECT value FROM json_each(?)) LIMIT 50`,
    )
    .all(JSON.stringify(recordIds)) as Link[];
  const viewOf = recordViews(db, jobId, lists);
  return {
    ...toRow(contact, stepIds(db, jobId)),
    person,
    extra,
    from,
    mergeChance,
    alternatives,
    profiles: possibleProfiles(db, jobId, contact, lists),
    found,
    filledBy,
    firm,
    brief: briefOf(db, jobId, lists)(person),
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

function briefOf(db: Db, jobId: number, lists: WordLists): (person: Person) => ContactView['brief'] {
  const parts = briefParts(stepIn(sieveOf(db, jobId), screen).options, titleReader(lists.titleWords));
  return (person) => parts(person).map(({ part, fit, is, near }) => ({ part, fit, is, near }));
}

/** Shows records of a job as they came and as they are after tidying and what a person wrote. */
export function recordViews(
  db: Db,
  jobId: number,
  lists: WordLists,
  decisions = standingDecisions(db, jobId),
): (id: number) => (RecordView & { at: number }) | undefined {
  const said = sortDecisions(decisions);
  const tidied = tidier({ phoneCountry: stepIn(sieveOf(db, jobId), tidy).options.phoneCountry, lists });
  const record = recordOf(db, jobId);
  return (id) => {
    const found = record(id);
    if (!found) return undefined;
    const { source, at, line, cells, columns } = found;
    const { person, changes, issues } = applyEdits(id, tidied(cells, columns), said);
    return {
      id,
      source,
      at,
      line,
      cells: cells.map((value, i) => ({ name: columns[i]?.name ?? `Column ${i + 1}`, value })),
      person,
      changes,
      issues,
    };
  };
}

export const weightsOf = (db: Db, jobId: number): Weights | null => jobRow(db, jobId)!.weights;

export type Explained = Pick<PairView, 'a' | 'b' | 'chance' | 'evidence'>;

/** Pairs with what speaks for and against them. */
export function explained(
  pairs: readonly Link[],
  view: (id: number) => RecordView | undefined,
  weights: Weights | null,
): Explained[] {
  return pairs.flatMap((pair) => {
    const [a, b] = [view(pair.a), view(pair.b)];
    return a && b ? [{ a, b, chance: pair.chance, evidence: weights ? evidenceOf(pair, weights) : [] }] : [];
  });
}

const MOST_GROUPS = 500;

/**
 * Values of a field of those who came to a step, counted, most common first, with what was said of them. Spellings that a
 * decision takes together are one group, under the most common of them.
 */
export function contactGroups(db: Db, jobId: number, { step, by }: GroupQuery): ContactGroup[] {
  const said = sortDecisions(standingDecisions(db, jobId)).groups.get(by);
  const own = by.startsWith('own:') ? by.slice('own:'.length) : null;
  const value = own === null ? by : OWN_VALUE;
  const rows = db.outcomes
    .prepare(
      `SELECT ${value} AS value, count(*) AS count, sum(stop = @step AND state = 'aside') AS aside
       FROM ${shownOutcome(db, jobId).contacts}
       WHERE stop >= @step AND value <> '' GROUP BY value ORDER BY count DESC, value`,
    )
    .all({ step: stepPosition(db, jobId, step), ...(own !== null && { own }) }) as Omit<ContactGroup, 'fate'>[];
  const groups = new Map<string, ContactGroup>();
  for (const row of rows) {
    const key = groupKey(row.value);
    const group = groups.get(key);
    if (!group) groups.set(key, { ...row, fate: said?.get(key) ?? '' });
    else {
      group.count += row.count;
      group.aside += row.aside;
    }
  }
  return [...groups.values()].sort((a, b) => b.count - a.count).slice(0, MOST_GROUPS);
}

/** Companies of a job by name, each with how many of its contacts work there. */
export function companyPage(
  db: Db,
  jobId: number,
  { q, offset, limit }: Pick<RowQuery, 'q' | 'offset' | 'limit'>,
): CompanyPage {
  const { companies, contacts } = shownOutcome(db, jobId);
  const like = `%${q.replace(/[\\%_]/g, '\\$&')}%`;
  const where = `WHERE name || ' ' || domain || ' ' || city LIKE ? ESCAPE '\\'`;
  const total = db.outcomes.prepare(`SELECT count(*) FROM ${companies} ${where}`).pluck().get(like) as number;
  const rows = readCompanies(
    db.outcomes,
    companies,
    `${where} ORDER BY name, id LIMIT ? OFFSET ?`,
    like,
    limit,
    offset,
  );
  const counted = db.outcomes
    .prepare(
      `SELECT domain, count(*) AS count FROM ${contacts}
       WHERE domain IN (SELECT value FROM json_each(?)) GROUP BY domain`,
    )
    .all(JSON.stringify(rows.flatMap(({ company }) => company.domain || []))) as { domain: string; count: number }[];
  const counts = new Map(counted.map(({ domain, count }) => [domain, count]));
  return {
    total,
    rows: rows.map(({ sources: source, ...row }) => ({
      ...row,
      source,
      contacts: counts.get(row.company.domain) ?? 0,
    })),
  };
}

/** The most contacts that one job gives to a search over all. */
const MOST_OF_A_JOB = 5;

/**
 * Contacts of all jobs: first those whose whole address or profile link this is, as the register says; then those whose last name,
 * company or address begins with the last word and who hold the other words too, by the orders of the grid, so without reading
 * what does not begin so.
 */
export function findContacts(db: Db, q: string, most: number): FoundContact[] {
  const words = q.split(/\s+/);
  const last = words.pop()!;
  const starts = [...new Set([last, last.toLowerCase(), last[0]!.toUpperCase() + last.slice(1).toLowerCase()])];
  const others = words.map(
    (_, i) => `AND lower(firstName || ' ' || lastName || ' ' || company || ' ' || email) LIKE @w${i}`,
  );
  const params = Object.fromEntries(words.map((word, i) => [`w${i}`, `%${word.toLowerCase()}%`]));
  const known = contactsKnownBy(db.register, [`email:${normaliseEmail(q)}`, `profile:${canonicalLink(q)}`]);
  const exact: FoundContact[] = [];
  const begun: FoundContact[] = [];
  for (const { jobId, contacts } of shownOutcomes(db)) {
    const steps = stepIds(db, jobId);
    const select = (where: string) => {
      const all = db.outcomes.prepare<unknown[], Omit<FoundContact, 'jobId' | 'step'> & { stop: number }>(
        `SELECT id AS contact, trim(firstName || ' ' || lastName) AS name, company, email, stop, state AS fate
         FROM ${contacts} WHERE ${where}`,
      );
      return (values: unknown) =>
        all.all(values).map(({ stop, ...row }) => ({ jobId, ...row, step: steps[stop] ?? steps.at(-1)! }));
    };
    const byId = select('id = ?');
    exact.push(...known.filter((one) => one.jobId === jobId).flatMap(({ contact }) => byId(contact)));
    if (exact.length + begun.length >= most) continue;
    const found = new Map<number, FoundContact>();
    for (const column of ['lastName', 'company', 'email']) {
      const beginning = select(
        `${column} >= @start AND ${column} < @end ${others.join(' ')} ORDER BY ${column} LIMIT ${MOST_OF_A_JOB}`,
      );
      for (const start of starts)
        for (const row of beginning({ start, end: `${start}\uffff`, ...params })) found.set(row.contact, row);
    }
    begun.push(...[...found.values()].slice(0, MOST_OF_A_JOB));
  }
  const isExact = new Set(exact.map(({ jobId, contact }) => `${jobId} ${contact}`));
  return [...exact, ...begun.filter(({ jobId, contact }) => !isExact.has(`${jobId} ${contact}`))].slice(0, most);
}
