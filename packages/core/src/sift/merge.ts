import type { Decision } from '../decisions/decision';
import { sortDecisions } from '../decisions/sort-decisions';
import { groupedBy } from '../grouping/grouped-by';
import { matchPeople, type MatchOutcome } from '../match/match';
import { survive } from '../match/survive';
import { newContact, type Contact } from '../model/contact';
import { addressLine, type Person } from '../model/person';
import { company } from '../steps/company/company';
import { match as matchStep } from '../steps/match/match';
import { screen } from '../steps/screen/screen';
import { stepIn, type Sieve } from '../steps/sieve';
import { fold } from '../text/fold';
import { groupFirms } from './group-firms';
import type { SiftRow } from './sift-row';

/** What matching made of the rows, before anything is screened. */
export interface Merged {
  contacts: Contact[];
  match: MatchOutcome;
}

interface MergeInput {
  /** In the order of their ids. */
  rows: readonly SiftRow[];
  sieve: Sieve;
  decisions: readonly Decision[];
}

/** The decisions that matching depends on, and its options; equal keys over the same rows merge alike. */
export function mergeKey({ sieve, decisions }: Pick<MergeInput, 'sieve' | 'decisions'>): string {
  const kinds = ['same', 'different', 'judge', 'apart', 'companies'];
  const said = decisions.filter(({ body }) => kinds.includes(body.kind));
  return JSON.stringify([stepIn(sieve, matchStep), countsCompanies(sieve), said]);
}

/** Finds the records that are one person, and merges them. */
export function merge({ rows, sieve, decisions }: MergeInput): Merged {
  const { on, options } = stepIn(sieve, matchStep);
  const judged = sortDecisions(decisions);
  const said = new Set([...judged.same, ...judged.different].flat());
  const indexOf = new Map<number, number>();
  if (said.size > 0) rows.forEach(({ recordId }, i) => said.has(recordId) && indexOf.set(recordId, i));
  const known = (groups: readonly number[][]) =>
    groups.map((group) => group.flatMap((record) => indexOf.get(record) ?? [])).filter(({ length }) => length > 1);
  const match = matchPeople(
    rows.map(({ person }) => person),
    on ? options : { mergeFrom: 2, judgeFrom: 2 },
    known(judged.same) as [number, number][],
    known(judged.different),
  );
  const groups = groupedBy(rows.keys(), (i) => match.roots[i]!);
  const contacts = [...groups.values()].map((group): Contact => {
    const [first, ...others] = group.map((i) => rows[i]!) as [SiftRow, ...SiftRow[]];
    const contact = newContact(first.recordId, first.person, first.nobody, first.extra);
    if (others.length === 0) return contact;
    const own = [first, ...others];
    const mergeChance = Math.min(1, ...group.map((i) => match.reasons.get(i)?.chance ?? 1));
    const recordIds = own.map(({ recordId }) => recordId);
    // The record that came first wins.
    const extra = Object.assign({}, ...own.map((row) => row.extra).reverse()) as Record<string, string>;
    const survived = survive(own, options.survivor, options.survivorOf);
    const earlierAddresses = earlierOf(survived.person, own);
    return { ...contact, ...survived, extra, recordIds, mergeChance, earlierAddresses };
  });
  fillByColleagues(contacts);
  if (countsCompanies(sieve)) groupFirms(contacts, judged);
  return { contacts, match };
}

/** The addresses of merged records beside the one that survived, those that are said to be earlier ones first. */
function earlierOf(person: Person, own: readonly SiftRow[]): string[] {
  const here = fold(addressLine(person));
  const lines = [...own.map((row) => row.person.earlierAddress), ...own.map((row) => addressLine(row.person))];
  const byKey = new Map(lines.map((line) => [fold(line), line]));
  return [...byKey].flatMap(([key, line]) => (key === '' || key === here ? [] : [line]));
}

/** Companies are matched where something depends on it. */
const countsCompanies = (sieve: Sieve): boolean => {
  const screened = stepIn(sieve, screen);
  return stepIn(sieve, company).on || (screened.on && screened.options.atMostPerCompany > 0);
};

/** A contact with a domain and no company gets the one that its colleagues' records agree on, and the other way round. */
function fillByColleagues(contacts: readonly Contact[]) {
  fillFrom(contacts, 'company', 'domain');
  fillFrom(contacts, 'domain', 'company');
}

/** Of contacts that lack one of the two, the value that all have who share the other. */
function fillFrom(contacts: readonly Contact[], lacks: 'domain' | 'company', shares: 'domain' | 'company') {
  const lacking = contacts.filter(({ person }) => person[lacks] === '' && person[shares] !== '');
  if (lacking.length === 0) return;
  // What is written in two ways is one company; a domain has one spelling.
  const keyOf = (field: 'domain' | 'company', person: Person) =>
    field === 'domain' ? person.domain : fold(person.company);
  const known = new Map<string, Map<string, string>>();
  for (const { person } of contacts) {
    if (person.domain === '' || person.company === '') continue;
    const [shared, other] = [keyOf(shares, person), keyOf(lacks, person)];
    const values = known.get(shared) ?? new Map<string, string>();
    if (!values.has(other)) values.set(other, person[lacks]);
    known.set(shared, values);
  }
  for (const contact of lacking) {
    const values = known.get(keyOf(shares, contact.person));
    if (values?.size !== 1) continue;
    contact.person = { ...contact.person, [lacks]: [...values.values()][0]! };
    contact.from[lacks] = 0;
  }
}
