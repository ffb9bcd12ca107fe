import { groupedBy, type Firm } from '@sieve/core';
import { mostCommon } from '@sieve/core/text/most-common';
import type { FirmRow } from '@sieve/contract';
import type { Db } from '../db/open';
import { FIRM_KEY, REST_FIELDS, type StoredContact } from './stored-contact';

type Came = Record<'key' | 'company' | 'domain' | 'sector' | 'headcount' | 'city' | 'country', string> &
  Pick<StoredContact, 'stop' | 'state' | 'code'> & { why: string; firm: string | null };

const STATES = ['pass', 'waits', 'look', 'aside'] as const;
const restPart = (field: (typeof REST_FIELDS)[number]) => `json_extract(rest, '$[${REST_FIELDS.indexOf(field)}]')`;

/** What is known of a place, as one text. */
export const placeOf = (...parts: readonly string[]): string => parts.filter((part) => part !== '').join(', ');

/**
 * The companies of those who came to a step. Where its people's records differ, a company is called, and is, what most of them say.
 *
 * @param contacts the table of the contacts
 * @param at the position of the step
 * @param key only this company
 */
export function firmsOfContacts(db: Db, contacts: string, at: number, key: string | null = null): FirmRow[] {
  const rows = db.outcomes
    .prepare(
      `SELECT ${FIRM_KEY} AS key, company, domain, sector, headcount, city, country, stop, state, code,
         ${restPart('why')} AS why, ${restPart('firm')} AS firm
       FROM ${contacts} WHERE stop >= @at AND ${FIRM_KEY} ${key === null ? "<> ''" : '= @key'} ORDER BY id`,
    )
    .all({ at, key }) as Came[];
  return [...groupedBy(rows, (row) => row.key)].map(([key, people]) => firmOf(key, people, at));
}

function firmOf(key: string, people: readonly Came[], at: number): FirmRow {
  const usual = (valueOf: (one: Came) => string) =>
    people.length === 1 ? valueOf(people[0]!) : (mostCommon(people.map(valueOf).filter((value) => value !== '')) ?? '');
  const rankOf = ({ stop, state }: Came) => (stop > at ? 0 : STATES.indexOf(state));
  const farthest = people.reduce((best, one) => (rankOf(one) < rankOf(best) ? one : best));
  const state = STATES[rankOf(farthest)]!;
  const known = answerOf(people);
  return {
    key,
    name: usual(({ company }) => company),
    domain: usual(({ domain }) => domain),
    sector: usual(({ sector }) => sector),
    headcount: usual(({ headcount }) => headcount),
    place: usual(({ city, country }) => placeOf(city, country)),
    came: people.length,
    pass: people.filter(({ stop }) => stop > at).length,
    state,
    code: state === 'pass' ? 'passed' : farthest.code,
    why: state === 'pass' ? {} : (JSON.parse(farthest.why) as FirmRow['why']),
    answer: known?.answer ?? '',
    yes: known?.yes ?? 0.5,
    by: known?.by ?? '',
  };
}

/** What the website of one of them answered; null where none was asked. */
function answerOf(people: readonly Came[]): Firm | null {
  for (const { firm } of people) {
    const known = firm === null ? null : (JSON.parse(firm) as Firm);
    if (known && known.answer !== '') return known;
  }
  return null;
}
