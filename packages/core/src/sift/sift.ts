import { appendEmail, type Appended } from '../steps/append-email/append-email';
import { learningPatterns, type Patterns } from '../steps/append-email/learn';
import { judge } from '../mail/judge';
import { matchPeople, type MatchOutcome } from '../match/match';
import { survive } from '../match/survive';
import type { Decision } from '../model/decision';
import { PASSED, type Fate } from '../model/fate';
import type { Person, PersonField } from '../model/person';
import type { Facts, Question } from '../model/question';
import type { StepKind, Steps } from '../model/step';
import type { Judgement } from '../model/verdict';
import { screener, type Suppression } from '../steps/screen/screen';
import { fold } from '../text/fold';
import type { SiftRow } from './sift-row';
import { sortDecisions, upTo, type Sorted } from './sort-decisions';

export interface SiftInput {
  /** In the order of their ids. */
  rows: readonly SiftRow[];
  steps: Steps;
  decisions: readonly Decision[];
  facts: Facts;
  suppression: Suppression;
}

/** A person after matching: one or more records merged, and what became of them. */
export interface Contact {
  /** The lowest id of its records. */
  id: number;
  recordIds: number[];
  person: Person;
  /** For each field of merged records, the one that its value came from; 0 for a value that no record holds. */
  from: Partial<Record<PersonField, number>>;
  /** How sure the least sure merge is, 1 for a single record. */
  mergeChance: number;
  appended: Appended | null;
  judgement: Judgement | null;
  fate: Fate;
}

export interface Outcome {
  contacts: Contact[];
  match: MatchOutcome;
}

/** What matching made of the rows, before anything is screened. */
export interface Merged extends Outcome {
  /** Records with nothing that says who they are. */
  nobodies: ReadonlySet<number>;
}

/**
 * f itself: records, steps, facts and decisions in, the outcome out. It reads no clock and asks nobody; what a run still
 * has to ask shows as a contact that waits.
 *
 * @param merged what `merge` made of the same rows under the same `mergeKey`, to save doing it again
 */
export function sift(input: SiftInput, merged: Merged = merge(input)): Outcome {
  const decisions = sortDecisions(input.decisions);
  const contacts = merged.contacts.map((contact) => ({ ...contact }));
  screen(contacts, merged.nobodies, input, decisions);
  appendAndVerify(contacts, input, decisions);
  return { contacts, match: merged.match };
}

/** The decisions that matching depends on, and its options; equal keys over the same rows merge alike. */
export function mergeKey({ steps, decisions }: Pick<SiftInput, 'steps' | 'decisions'>): string {
  const kinds = ['same', 'different', 'apart'];
  return JSON.stringify([steps.match, decisions.filter(({ body }) => kinds.includes(body.kind))]);
}

const newContact = ({ recordId, person }: SiftRow): Contact => ({
  id: recordId,
  recordIds: [recordId],
  person,
  from: {},
  mergeChance: 1,
  appended: null,
  judgement: null,
  fate: PASSED,
});

/** Finds the records that are one person, and merges them. */
export function merge(input: SiftInput): Merged {
  const { rows, steps } = input;
  const decisions = sortDecisions(input.decisions);
  const said = new Set([...decisions.same, ...decisions.different].flat());
  const indexOf = new Map<number, number>();
  if (said.size > 0) rows.forEach(({ recordId }, i) => said.has(recordId) && indexOf.set(recordId, i));
  const known = (pairs: [number, number][]) =>
    pairs.flatMap(([a, b]): [number, number][] =>
      indexOf.has(a) && indexOf.has(b) ? [[indexOf.get(a)!, indexOf.get(b)!]] : [],
    );
  const lines = steps.match.on ? steps.match : { mergeFrom: 2, judgeFrom: 2 };
  const match = matchPeople(
    rows.map(({ person }) => person),
    lines,
    known(decisions.same),
    known(decisions.different),
  );
  const groups = new Map<number, number[]>();
  match.roots.forEach((root, i) => {
    const group = groups.get(root);
    if (group) group.push(i);
    else groups.set(root, [i]);
  });
  const contacts = [...groups.values()].map((group): Contact => {
    const [first, ...others] = group.map((i) => rows[i]!) as [SiftRow, ...SiftRow[]];
    const contact = newContact(first);
    if (others.length === 0) return contact;
    const own = [first, ...others];
    const mergeChance = Math.min(1, ...group.map((i) => match.reasons.get(i)?.chance ?? 1));
    const recordIds = own.map(({ recordId }) => recordId);
    return { ...contact, ...survive(own, steps.match.survivor), recordIds, mergeChance };
  });
  fillDomains(contacts);
  return { contacts, match, nobodies: new Set(rows.filter(({ nobody }) => nobody).map(({ recordId }) => recordId)) };
}

/** A contact without a domain gets the one that its colleagues' records agree on. */
function fillDomains(contacts: readonly Contact[]) {
  const lacking = contacts.filter(({ person }) => person.domain === '' && person.company !== '');
  if (lacking.length === 0) return;
  const domains = new Map<string, Set<string>>();
  for (const { person } of contacts) {
    if (person.domain === '' || person.company === '') continue;
    const key = fold(person.company);
    const known = domains.get(key);
    if (known) known.add(person.domain);
    else domains.set(key, new Set([person.domain]));
  }
  for (const contact of lacking) {
    const known = domains.get(fold(contact.person.company));
    if (known?.size !== 1) continue;
    contact.person = { ...contact.person, domain: [...known][0]! };
    contact.from.domain = 0;
  }
}

/** What a person said last of any record of a contact. */
function saidOf(contact: Contact, decisions: Sorted): { keepTo: StepKind | null } | undefined {
  let last: { order: number; keepTo: StepKind | null } | undefined;
  for (const id of contact.recordIds) {
    const said = decisions.fates.get(id);
    if (said && (!last || said.order > last.order)) last = said;
  }
  return last;
}

function screen(contacts: readonly Contact[], nobodies: ReadonlySet<number>, input: SiftInput, decisions: Sorted) {
  const fateOf = screener(input.steps.screen, input.suppression, decisions.titleGroups);
  for (const contact of contacts) {
    const said = saidOf(contact, decisions);
    const keptTo = (step: StepKind) => said?.keepTo != null && upTo(step, said.keepTo);
    if (nobodies.has(contact.id) && !keptTo('tidy'))
      contact.fate = { step: 'tidy', state: 'aside', code: 'nothing-to-identify', why: {} };
    else if (said?.keepTo === null) contact.fate = { step: 'screen', state: 'aside', code: 'by-hand', why: {} };
    else contact.fate = fateOf(contact.person, keptTo('screen'));
  }
}

/** Patterns learned from the addresses that came with the records. */
export function patternsOf(contacts: readonly Contact[]): Patterns {
  const patterns = learningPatterns();
  for (const { person } of contacts)
    if (person.email !== '') patterns.learn(person.email, person.firstName, person.lastName);
  return patterns;
}

function appendAndVerify(contacts: readonly Contact[], input: SiftInput, decisions: Sorted) {
  const patterns = patternsOf(contacts);
  for (const contact of contacts) {
    if (!isScreened(contact)) continue;
    settle(contact, patterns, input.facts, input.steps);
    const { state, step }: Fate = contact.fate;
    const keepTo = saidOf(contact, decisions)?.keepTo;
    if (state === 'aside' && step && keepTo && upTo(step, keepTo)) contact.fate = PASSED;
  }
}

/** True for a contact that the steps before append let pass. */
export const isScreened = ({ fate }: Contact): boolean =>
  fate.state === 'pass' || fate.step === 'append' || fate.step === 'verify';

/**
 * Takes one contact through append and verify as far as the facts reach, and says what has to be asked next. An address
 * that was found teaches the pattern of its domain to the contacts after it.
 */
export function settle(contact: Contact, patterns: Patterns, facts: Facts, steps: Steps): Question | null {
  const stop = (step: StepKind, state: Fate['state'], code: Fate['code'], why: Fate['why'] = {}) => {
    contact.fate = { step, state, code, why };
  };
  contact.appended = contact.judgement = null;
  contact.fate = PASSED;
  const { person } = contact;
  if (person.email === '') {
    if (!steps.append.on) return null;
    const progress = appendEmail(person, patterns, facts, steps.append);
    if (progress.ask) {
      stop('append', 'waits', 'to-ask');
      return progress.ask;
    }
    if ('none' in progress.done) {
      stop('append', 'aside', progress.done.none);
      return null;
    }
    contact.appended = progress.done.found;
    contact.judgement = contact.appended.judgement;
    if (contact.judgement.verdict === 'valid')
      patterns.learnHere(contact.appended.email, person.firstName, person.lastName);
  } else {
    if (!steps.verify.on) return null;
    const progress = judge(person.email, facts);
    if (progress.ask) {
      stop('verify', 'waits', 'to-verify');
      return progress.ask;
    }
    contact.judgement = progress.done;
  }
  const { verdict, reason } = contact.judgement;
  if (verdict !== 'valid' && steps.verify.on) stop('verify', 'aside', 'verdict', { verdict, reason });
  return null;
}
