import {
  ANY_AGE,
  answersTo,
  company,
  companyKey,
  companyTwins,
  groupName,
  headcountRange,
  JUDGE_FROM,
  nameWords,
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
import { firmsOfContacts, placeOf } from './firms-of-contacts';
import { shownOutcome } from './outcomes';
import { FIRM_KEY, REST_FIELDS } from './stored-contact';

const MOST_PEOPLE = 100;
const MOST_TO_TEACH = 12;

const { compare } = new Intl.Collator('en');
/** What is blank comes behind. */
const by =
  (value: (row: FirmRow) => string) =>
  (a: FirmRow, b: FirmRow): number => {
    const [x, y] = [value(a), value(b)];
    return x === '' || y === '' ? Number(x === '') - Number(y === '') : compare(x, y);
  };
const ORDER: Record<FirmQuery['sort'], (a: FirmRow, b: FirmRow) => number> = {
  name: by(({ name }) => name),
  answer: by(({ answer }) => answer),
  domain: by(({ domain }) => domain),
  sector: by(({ sector }) => sector),
  headcount: (a, b) => (headcountRange(a.headcount)?.from ?? 0) - (headcountRange(b.headcount)?.from ?? 0),
  place: by(({ place }) => place),
  // Most people first is what one looks for.
  contacts: (a, b) => b.came - a.came,
};

/** Where the company step of a job stands, and how it is set up. */
export function stepOf(db: Db, jobId: number, id: string): { at: number; options: CompanyOptions } {
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
  const all = Number.isFinite(at) ? firmsOfContacts(db, shownOutcome(db, jobId).contacts, at) : [];
  const byHand = [...answersIn(db, jobId, options).values()];
  const taught = {
    yes: byHand.filter((answer) => answer === 'yes').length,
    no: byHand.filter((answer) => answer === 'no').length,
  };
  const count = <K extends 'state' | 'answer'>(key: K, value: FirmRow[K]) =>
    all.filter((row) => row[key] === value).length;
  const words = query.q.toLowerCase().split(/\s+/).filter(Boolean);
  const holds = ({ name, domain, sector, place }: FirmRow) => {
    const text = `${name} ${domain} ${sector} ${place}`.toLowerCase();
    return words.every((word) => text.includes(word));
  };
  const order = ORDER[query.sort];
  const chosen =
    query.show === 'teach'
      ? whatTeaches(
          all.filter(({ answer, by }) => answer !== '' && by !== 'hand'),
          taught,
          MOST_TO_TEACH,
        )
      : all
          .filter((row) => query.show === 'all' || row.state === query.show)
          .filter((row) => query.answer === undefined || row.answer === query.answer)
          .filter(holds)
          .sort((a, b) => (query.desc ? -1 : 1) * order(a, b) || (a.name < b.name ? -1 : a.name > b.name ? 1 : 0));
  return {
    total: chosen.length,
    rows: chosen.slice(query.offset, query.offset + query.limit),
    states: {
      pass: count('state', 'pass'),
      aside: count('state', 'aside'),
      look: count('state', 'look'),
      waits: count('state', 'waits'),
    },
    answers: { yes: count('answer', 'yes'), no: count('answer', 'no'), unclear: count('answer', 'unclear') },
    taught,
  };
}

/** A company of those who came to a step in full: what its website says, what was bought of it, and its people. */
export function firmView(db: Db, jobId: number, step: string, key: string): FirmView | undefined {
  const { at, options } = stepOf(db, jobId, step);
  if (!Number.isFinite(at)) return undefined;
  const { contacts } = shownOutcome(db, jobId);
  const [row] = firmsOfContacts(db, contacts, at, key);
  if (!row) return undefined;
  const people = db.outcomes
    .prepare(
      `SELECT id, trim(firstName || ' ' || lastName) AS name, title, verdict, company, json_extract(rest, '$[${REST_FIELDS.indexOf('recordIds')}]') AS recordIds,
         CASE WHEN stop > @at THEN 'pass' ELSE state END AS state
       FROM ${contacts} WHERE stop >= @at AND ${FIRM_KEY} = @key ORDER BY id`,
    )
    .all({ at, key }) as (FirmView['people'][number] & { company: string; recordIds: string })[];
  const all = namedOf(db, contacts, at);
  return {
    ...row,
    site: siteOf(db, row, options),
    bought: boughtOf(db, row, options),
    topics: topicsOf(db, row, options),
    ...kinOf(db, jobId, contacts, all, row),
    sites: sitesOf(all, row),
    spellings: spellingsOf(people),
    people: people
      .slice(0, MOST_PEOPLE)
      .map(({ id, name, title, state, verdict }) => ({ id, name, title, state, verdict })),
    recordIds: people.flatMap(({ recordIds }) => JSON.parse(recordIds) as number[]),
    contactIds: people.map(({ id }) => id),
  };
}

function siteOf(db: Db, { domain, answer }: FirmRow, options: CompanyOptions): FirmView['site'] {
  const facts = factsAt(db, 0, ANY_AGE);
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

function spellingsOf(people: readonly { company: string }[]): FirmView['spellings'] {
  const counts = new Map<string, number>();
  for (const { company: name } of people) if (name !== '') counts.set(name, (counts.get(name) ?? 0) + 1);
  return [...counts].map(([name, people]) => ({ name, people })).sort((a, b) => b.people - a.people);
}

/** A company of those who came to a step, as it is compared with the others. */
export interface NamedFirm {
  key: string;
  name: string;
  domain: string;
  city: string;
  country: string;
}
interface Named extends NamedFirm {
  came: number;
}

/** All of them, those of the most people first. */
const namedOf = (db: Db, contacts: string, at: number): Named[] =>
  db.outcomes
    .prepare(
      `SELECT ${FIRM_KEY} AS key, max(company) AS name, max(domain) AS domain, max(city) AS city, max(country) AS country, count(*) AS came
       FROM ${contacts} WHERE stop >= ? GROUP BY 1 HAVING key <> '' ORDER BY came DESC`,
    )
    .all(at) as Named[];

const MOST_SITES = 8;

/** The other companies of a group, by what their names have in common. */
function sitesOf(all: readonly Named[], { key, name }: FirmRow): FirmView['sites'] {
  const places = new Set(all.flatMap(({ city }) => nameWords(city).words));
  const group = groupName(name, places);
  if (group === '') return [];
  return all
    .filter((one) => one.key !== key && groupName(one.name, places) === group)
    .slice(0, MOST_SITES)
    .map(({ key, name, city, country, came }) => ({ key, name, place: placeOf(city, country), came }));
}

const MOST_TWINS = 4;

/** Companies that may be the same, and those that were put together with it. */
function kinOf(
  db: Db,
  jobId: number,
  contacts: string,
  all: readonly Named[],
  { key }: FirmRow,
): Pick<FirmView, 'twins' | 'joined'> {
  const joined = db.outcomes
    .prepare(
      `SELECT max(company) AS company, domain FROM ${contacts} WHERE ${FIRM_KEY} = ? GROUP BY domain, lower(company)`,
    )
    .all(key) as { company: string; domain: string }[];
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
        place: placeOf(city, country),
        chance,
      })),
    joined: joined
      .map(({ company: name, domain }) => ({ key: companyKey({ company: name, domain }), name, domain }))
      .filter((one, i, list) => one.key !== key && list.findIndex((other) => other.key === one.key) === i),
  };
}

function topicsOf(db: Db, { domain }: FirmRow, { topicsBy: service }: CompanyOptions): FirmView['topics'] {
  if (service === '' || domain === '') return null;
  const facts = factsAt(db, 0, ANY_AGE);
  const offer = facts({ kind: 'topic-offer', service, domain }).fact;
  if (!offer) return null;
  const { record, priceCents } = offer.answer;
  if (record === null) return { service, askedAt: offer.askedAt, priceCents: 0, topics: [] };
  const bought = facts({ kind: 'topic-record', service, record, priceCents }).fact;
  return bought && { service, askedAt: bought.askedAt, priceCents, topics: bought.answer.topics };
}

function boughtOf(db: Db, { domain }: FirmRow, { detailsBy: service }: CompanyOptions): FirmView['bought'] {
  if (service === '' || domain === '') return null;
  const facts = factsAt(db, 0, ANY_AGE);
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
    record: { ...rest, place: placeOf(city, region, country) },
  };
}
