import {
  answersTo,
  company,
  companyKey,
  companyTwins,
  JUDGE_FROM,
  companyOptions,
  isParked,
  askSites,
  sortDecisions,
  whatTeaches,
  type CompanyOptions,
} from '@sieve/core';
import type { FirmPage, FirmQuery, FirmRow, FirmView } from '@sieve/contract';
import type { Db } from '../db/open';
import { standingDecisions } from '../decisions/store';
import { sieveOf } from '../jobs/store';
import { factsAt } from '../outside/facts';
import { shownOutcome } from './outcomes';
import { REST_FIELDS } from './stored-contact';

const MOST_PEOPLE = 100;
const MOST_TO_TEACH = 12;

const firmPart = (name: string) => `json_extract(rest, '$[${REST_FIELDS.indexOf('firm')}].${name}')`;
const KEY = `json_extract(rest, '$[${REST_FIELDS.indexOf('firmKey')}]')`;
const STATES = ['pass', 'waits', 'look', 'aside'] as const;

/** The companies of those who came to a step; each stands where the first of its people stands who went farthest. */
const firmsOf = (contacts: string) => `
  SELECT ${KEY} AS key, max(company) AS name, max(domain) AS domain, max(sector) AS sector, max(headcount) AS headcount,
    max(trim(city || CASE WHEN city <> '' AND country <> '' THEN ', ' ELSE '' END || country)) AS place,
    count(*) AS came, sum(stop > @at) AS pass,
    CASE min(CASE WHEN stop > @at THEN 0 WHEN state = 'waits' THEN 1 WHEN state = 'look' THEN 2 ELSE 3 END)
      ${STATES.map((state, i) => `WHEN ${i} THEN '${state}'`).join(' ')} END AS state,
    max(CASE WHEN stop = @at THEN code ELSE '' END) AS code,
    max(CASE WHEN stop = @at THEN json_extract(rest, '$[${REST_FIELDS.indexOf('why')}]') END) AS why,
    coalesce(max(${firmPart('answer')}), '') AS answer, coalesce(max(${firmPart('yes')}), 0.5) AS yes,
    coalesce(max(${firmPart('by')}), '') AS by
  FROM ${contacts} WHERE stop >= @at GROUP BY 1 HAVING key <> ''`;

const ORDER: Record<FirmQuery['sort'], string> = {
  name: 'name',
  answer: `answer = '', answer`,
  domain: 'domain',
  sector: `sector = '', sector`,
  headcount: 'CAST(headcount AS INTEGER)',
  place: 'place',
  contacts: 'came',
};

type Stored = Omit<FirmRow, 'why'> & { why: string | null };
const toRow = ({ why, ...row }: Stored): FirmRow => ({
  ...row,
  code: row.state === 'pass' ? 'passed' : row.code,
  why: row.state === 'pass' || why === null ? {} : (JSON.parse(why) as FirmRow['why']),
});

/** Where the company step of a job stands, and how it is set up. */
function stepOf(db: Db, jobId: number, id: string): { at: number; options: CompanyOptions } {
  const sieve = sieveOf(db, jobId);
  const at = sieve.findIndex((step) => step.id === id);
  return {
    at: at < 0 ? Infinity : at,
    options: companyOptions.parse(sieve[at]?.kind === company.kind ? sieve[at].options : {}),
  };
}

const answersIn = (db: Db, jobId: number, { question }: CompanyOptions) =>
  answersTo(question, sortDecisions(standingDecisions(db, jobId)));

/** A page of the companies of those who came to a step. */
export function firmPage(db: Db, jobId: number, query: FirmQuery): FirmPage {
  const { at, options } = stepOf(db, jobId, query.step);
  const firms = firmsOf(shownOutcome(db, jobId).contacts);
  const params = { at: Number.isFinite(at) ? at : 1e9 };
  const counted = db.outcomes
    .prepare(`SELECT state, answer, count(*) AS count FROM (${firms}) GROUP BY state, answer`)
    .all(params) as { state: FirmRow['state']; answer: FirmRow['answer']; count: number }[];
  const sum = (where: (row: (typeof counted)[number]) => boolean) =>
    counted.filter(where).reduce((total, { count }) => total + count, 0);
  const byHand = answersIn(db, jobId, options);
  const taughtAs = (answer: string) => [...byHand.values()].filter((one) => one === answer).length;
  const taught = { yes: taughtAs('yes'), no: taughtAs('no') };
  return {
    ...(query.show === 'teach' ? toTeach() : chosen()),
    states: Object.fromEntries(STATES.map((state) => [state, sum((row) => row.state === state)])) as FirmPage['states'],
    answers: {
      yes: sum(({ answer }) => answer === 'yes'),
      no: sum(({ answer }) => answer === 'no'),
      unclear: sum(({ answer }) => answer === 'unclear'),
    },
    taught,
  };

  function toTeach(): Pick<FirmPage, 'total' | 'rows'> {
    const open = db.outcomes
      .prepare(`SELECT * FROM (${firms}) WHERE answer <> '' AND by <> 'hand'`)
      .all(params) as Stored[];
    const rows = whatTeaches(open, taught, MOST_TO_TEACH).map(toRow);
    return { total: rows.length, rows };
  }

  function chosen(): Pick<FirmPage, 'total' | 'rows'> {
    const words = query.q.toLowerCase().split(/\s+/).filter(Boolean);
    const where = [
      ...(query.show === 'all' ? [] : ['state = @show']),
      ...(query.answer === undefined ? [] : ['answer = @answer']),
      ...words.map((_, i) => `lower(name || ' ' || domain || ' ' || sector || ' ' || place) LIKE @q${i} ESCAPE '\\'`),
    ];
    const from = `FROM (${firms}) ${where.length > 0 ? `WHERE ${where.join(' AND ')}` : ''}`;
    const all = {
      ...params,
      show: query.show,
      answer: query.answer,
      ...Object.fromEntries(words.map((word, i) => [`q${i}`, `%${word.replace(/[\\%_]/g, '\\$&')}%`])),
    };
    // Most people first is what one looks for; all else in its order.
    const down = query.desc !== (query.sort === 'contacts');
    const order = ORDER[query.sort]
      .split(', ')
      .map((part) => `${part} ${down ? 'DESC' : 'ASC'}`)
      .join(', ');
    const rows = db.outcomes
      .prepare(`SELECT * ${from} ORDER BY ${order}, name, key LIMIT @limit OFFSET @offset`)
      .all({ ...all, limit: query.limit, offset: query.offset }) as Stored[];
    const total = db.outcomes.prepare(`SELECT count(*) ${from}`).pluck().get(all) as number;
    return { total, rows: rows.map(toRow) };
  }
}

/** A company of those who came to a step in full: what its website says, what was bought of it, and its people. */
export function firmView(db: Db, jobId: number, step: string, key: string): FirmView | undefined {
  const { at, options } = stepOf(db, jobId, step);
  if (!Number.isFinite(at)) return undefined;
  const { contacts } = shownOutcome(db, jobId);
  const row = db.outcomes.prepare(`SELECT * FROM (${firmsOf(contacts)}) WHERE key = @key`).get({ at, key }) as
    Stored | undefined;
  if (!row) return undefined;
  const people = db.outcomes
    .prepare(
      `SELECT id, trim(firstName || ' ' || lastName) AS name, title, verdict,
         CASE WHEN stop > @at THEN 'pass' ELSE state END AS state
       FROM ${contacts} WHERE stop >= @at AND ${KEY} = @key ORDER BY id LIMIT ${MOST_PEOPLE}`,
    )
    .all({ at, key }) as FirmView['people'];
  return {
    ...toRow(row),
    site: siteOf(db, row, options),
    bought: boughtOf(db, row, options),
    topics: topicsOf(db, row, options),
    ...kinOf(db, jobId, contacts, row, at),
    people,
  };
}

function siteOf(db: Db, { domain, answer }: Stored, options: CompanyOptions): FirmView['site'] {
  const facts = factsAt(db, 0, Infinity);
  const { fact } = facts({ kind: 'website', domain });
  if (!fact) return null;
  // What was answered is in the outcome; here only the sentences are wanted.
  const asked = askSites({ ...options, learns: false }, facts, new Map()).ask(domain);
  const pages = fact.answer.state === 'read' ? fact.answer.pages : [];
  const speaking = 'ask' in asked ? [] : [...asked.speaking];
  const agrees = answer === 'no' ? 'against' : 'for';
  return {
    state: isParked(pages) ? 'parked' : fact.answer.state,
    askedAt: fact.askedAt,
    pages: pages.map(({ path, title, lines }) => ({ path, title, lines: lines.length })),
    speaking: speaking.sort((a, b) => Number(b.speaks === agrees) - Number(a.speaks === agrees)),
  };
}

const MOST_TWINS = 4;

/** Companies that may be the same, and those that were put together with it. */
function kinOf(
  db: Db,
  jobId: number,
  contacts: string,
  { key }: Stored,
  at: number,
): Pick<FirmView, 'twins' | 'joined'> {
  const joined = db.outcomes
    .prepare(`SELECT max(company) AS company, domain FROM ${contacts} WHERE ${KEY} = ? GROUP BY domain, lower(company)`)
    .all(key) as { company: string; domain: string }[];
  const all = db.outcomes
    .prepare(
      `SELECT ${KEY} AS key, max(company) AS name, max(domain) AS domain, max(city) AS city, max(country) AS country
       FROM ${contacts} WHERE stop >= ? GROUP BY 1 HAVING key <> ''`,
    )
    .all(at) as { key: string; name: string; domain: string; city: string; country: string }[];
  const two = new Set(
    sortDecisions(standingDecisions(db, jobId)).companies.different.flatMap(([a, b]) =>
      a === key ? [b] : b === key ? [a] : [],
    ),
  );
  const own = all.findIndex((one) => one.key === key);
  const pairs =
    own < 0
      ? []
      : companyTwins(
          own,
          all.map((one) => ({ ...one, link: '' })),
        );
  return {
    twins: pairs
      .map(({ b, chance }) => ({ ...all[b]!, chance }))
      .filter((twin) => twin.chance >= JUDGE_FROM && !two.has(twin.key))
      .slice(0, MOST_TWINS)
      .map(({ key, name, domain, city, country, chance }) => ({
        key,
        name,
        domain,
        place: [city, country].filter((part) => part !== '').join(', '),
        chance,
      })),
    joined: joined
      .map(({ company: name, domain }) => ({ key: companyKey({ company: name, domain }), name, domain }))
      .filter((one, i, list) => one.key !== key && list.findIndex((other) => other.key === one.key) === i),
  };
}

function topicsOf(db: Db, { domain }: Stored, { topicsBy: service }: CompanyOptions): FirmView['topics'] {
  if (service === '' || domain === '') return null;
  const facts = factsAt(db, 0, Infinity);
  const offer = facts({ kind: 'topic-offer', service, domain }).fact;
  if (!offer) return null;
  const { record, priceCents } = offer.answer;
  if (record === null) return { service, askedAt: offer.askedAt, priceCents: 0, topics: [] };
  const bought = facts({ kind: 'topic-record', service, record, priceCents }).fact;
  return bought && { service, askedAt: bought.askedAt, priceCents, topics: bought.answer.topics };
}

function boughtOf(db: Db, { domain }: Stored, { detailsBy: service }: CompanyOptions): FirmView['bought'] {
  if (service === '' || domain === '') return null;
  const facts = factsAt(db, 0, Infinity);
  const offer = facts({ kind: 'firm-offer', service, domain }).fact;
  if (!offer) return null;
  const { record, priceCents } = offer.answer;
  if (record === null) return { service, askedAt: offer.askedAt, priceCents: 0, record };
  const bought = facts({ kind: 'firm-record', service, record, priceCents }).fact;
  if (!bought) return null;
  const { city, region, country, ...rest } = bought.answer;
  return {
    service,
    askedAt: bought.askedAt,
    priceCents,
    record: { ...rest, place: [city, region, country].filter((part) => part !== '').join(', ') },
  };
}
