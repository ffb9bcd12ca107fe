import type { Decision } from '../decisions/decision';
import { sortDecisions, type Sorted } from '../decisions/sort-decisions';
import type { Facts } from '../facts/facts';
import { matchCompanies, type CompanyRow, type KnownCompany } from '../company/match-companies';
import { weighElsewhere } from '../match/weigh-elsewhere';
import type { MatchOutcome } from '../match/match';
import type { Contact } from '../model/contact';
import type { FindElsewhere } from '../model/elsewhere';
import { PASSED, type Fate } from '../model/fate';
import type { WordLists } from '../model/word-lists';
import type { MadeAt } from '../model/made';
import { stepOf } from '../steps/registry';
import { positionOf, stepIn, type Sieve } from '../steps/sieve';
import { tidy } from '../steps/tidy/tidy';
import type { Suppression } from '../model/suppression';
import type { Advance, Stop } from '../steps/step';
import { acrossJobs } from './across-jobs';
import { choose } from './choose';
import { merge, type Merged } from './merge';
import type { SiftRow } from './sift-row';

export interface SiftInput {
  /** In the order of their ids. */
  rows: readonly SiftRow[];
  /** Records about companies, in the order of their ids. */
  companyRows: readonly CompanyRow[];
  sieve: Sieve;
  decisions: readonly Decision[];
  /** As they read at one moment: facts age, and nothing else of `f` looks at the time. */
  facts: Facts;
  suppression: Suppression;
  /** Who other jobs hold, and who left with them. */
  elsewhere: FindElsewhere;
  /** How addresses were made that other jobs know. */
  made: MadeAt;
  lists: WordLists;
}

export interface Outcome {
  contacts: Contact[];
  companies: KnownCompany[];
  match: MatchOutcome;
}

/**
 * f itself: records, steps, facts and decisions in, the outcome out. It reads no clock and asks nobody; what a run still
 * has to ask shows as a contact that waits.
 *
 * @param merged what `merge` made of the same rows under the same `mergeKey`, to save doing it again
 */
export function sift(input: SiftInput, merged: Merged = merge(input)): Outcome {
  const { contacts } = siftTo(null, input, merged);
  return { contacts, companies: matchCompanies(input.companyRows), match: merged.match };
}

/** Takes a contact that has come to a step through it: sets its fate, and says what stopped it, null when it passes. */
export type Take = (contact: Contact) => Stop | null;

/**
 * Sifts as far as a step, and not through it; through all of them for null.
 *
 * @returns all contacts, those that came so far, and how they are taken through the step
 */
export function siftTo(
  step: string | null,
  input: SiftInput,
  merged: Merged = merge(input),
): { contacts: Contact[]; came: Contact[]; take: Take } {
  const { sieve, facts, suppression, made, lists } = input;
  const decisions = sortDecisions(input.decisions);
  const elsewhere = weighElsewhere(input.elsewhere, acrossJobs(sieve, merged.match));
  const { phoneCountry } = stepIn(sieve, tidy).options;
  const env = { facts, suppression, elsewhere, made, lists, decisions, phoneCountry };
  const contacts = merged.contacts.map((contact) => ({ ...contact }));
  choose(contacts, input.rows, decisions.chosen);
  const ofContacts = sieve.filter(({ kind }) => stepOf(kind).about === 'contact');
  // Who was set aside by hand goes through none of them, and is counted at the first that is on.
  const firstOfContacts = (ofContacts.find(({ on }) => on) ?? ofContacts[0])?.id;
  let came: Contact[] = contacts;
  for (const [position, { id, kind, on, options }] of sieve.entries()) {
    const { prepare, options: schema } = stepOf(kind);
    // What was set up before an option was there has its usual value.
    const advance: Advance = on ? prepare(contacts, schema.parse(options), env) : () => null;
    const take: Take = (contact) => {
      const said = saidOf(contact, decisions);
      if (said?.keepTo === null && id === firstOfContacts) return stopped(contact, id, BY_HAND);
      const kept = keptThrough(said, sieve, position);
      const stop = advance(contact, kept);
      return stop && !(kept && stop.state !== 'waits') ? stopped(contact, id, stop) : ((contact.fate = PASSED), null);
    };
    if (id === step) return { contacts, came, take };
    came = came.filter((contact) => take(contact) === null);
  }
  return { contacts, came, take: () => null };
}

const BY_HAND: Stop = { state: 'aside', code: 'by-hand' };

function stopped(contact: Contact, step: string, stop: Stop): Stop {
  contact.fate = { step, ...fateOf(stop) };
  return stop;
}

function fateOf(stop: Stop): Omit<Fate, 'step'> {
  if (stop.state !== 'waits') return { state: stop.state, code: stop.code, why: stop.why ?? {} };
  if (stop.silent !== null) return { state: 'waits', code: 'no-answer-yet', why: { reason: stop.silent } };
  return { state: 'waits', code: stop.stale ? 'no-longer-fresh' : 'to-ask', why: {} };
}

/** What a person said last of any record of a contact. */
export function saidOf(
  contact: Pick<Contact, 'recordIds'>,
  decisions: Pick<Sorted, 'fates'>,
): { keepTo: string | null } | undefined {
  if (decisions.fates.size === 0) return undefined;
  let last: { order: number; keepTo: string | null } | undefined;
  for (const id of contact.recordIds) {
    const said = decisions.fates.get(id);
    if (said && (!last || said.order > last.order)) last = said;
  }
  return last;
}

/** Whether what a person said keeps a contact as far as the step at a position. */
export const keptThrough = (said: ReturnType<typeof saidOf>, sieve: Sieve, position: number): boolean =>
  said?.keepTo != null && position <= positionOf(sieve, said.keepTo);

/** True for a contact that has come as far as somebody can be asked about it. */
export const isScreened = ({ fate }: Contact, sieve: Sieve): boolean => {
  const stop = positionOf(sieve, fate.step);
  return stop >= sieve.findIndex(({ kind }) => stepOf(kind).asks);
};
