import { atAnyAge, firstWanted, wantedOf, type Wanted } from '../../facts/facts';
import { judge } from '../../mail/judge';
import type { Contact } from '../../model/contact';
import type { Person } from '../../model/person';
import type { Judgement } from '../../model/verdict';
import { waiting, type Env, type Step } from '../step';
import { candidatesFor, claimsOf, type Candidate, type Claims } from './candidates';
import { learningPatterns, type Patterns } from './learn';
import { appendEmailOptions, type AppendEmailOptions } from './options';

/** Adds the address that a contact lacks. One that is found teaches its domain's pattern to the contacts after it, and is nobody else's. */
export const appendEmail: Step<AppendEmailOptions> = {
  kind: 'append-email',
  options: appendEmailOptions,
  about: 'contact',
  after: ['match'],
  optional: true,
  asks: true,
  prepare: (all, options, { facts, lists, made }) => {
    const patterns = learningPatterns(made);
    const taken = new Map<string, number>();
    for (const { id, person } of all) {
      if (person.email === '') continue;
      patterns.learn(person.email, person);
      taken.set(person.email, id);
    }
    const claims = claimsOf(
      all.map(({ person }) => person),
      (domain) => patterns.ranked(domain).map(({ pattern }) => pattern),
    );
    return (contact) => {
      const { person } = contact;
      if (person.email !== '') return null;
      const isTaken = (email: string) => (taken.get(email) ?? contact.id) !== contact.id;
      const search = findEmail(person, { patterns, claims, isTaken }, { facts, lists }, options);
      if ('ask' in search) return waiting(search);
      if ('none' in search) return { state: 'aside', code: search.none };
      give(contact, search);
      taken.set(search.email, contact.id);
      if (search.judgement.verdict === 'valid') patterns.learnHere(search.email, person);
      return null;
    };
  },
};

function give(contact: Contact, { email, via, alternatives, judgement }: FoundEmail) {
  contact.person = { ...contact.person, email };
  contact.added = { ...contact.added, email: { via, alternatives } };
  contact.judgement = judgement;
}

/** An address, where it came from, and what else it could be. */
export interface FoundEmail {
  email: string;
  via: string;
  judgement: Judgement;
  alternatives: string[];
}

/** What is known of how addresses are made, and whose they are. */
export interface Making {
  patterns: Patterns;
  claims: Claims;
  /** Whether somebody else has an address. */
  isTaken: (email: string) => boolean;
}

const MOST_ALTERNATIVES = 3;

/**
 * Looks for the address of one person: candidates made from the name, most likely first, as long as the chance of the next is worth the
 * question; then the finders in lookup order. The first address that verifies is taken, and only then is a finder paid. What somebody
 * else has is not theirs.
 *
 * An address that was found stays found at any age; whether it still takes mail is for the verifying. Who was not found by anybody is asked about
 * again once that is long ago.
 *
 * Where a domain takes mail for anybody nothing can verify: the likeliest candidate of a known pattern, else a
 * finder's answer, is given as risky and costs nothing.
 *
 * @returns the address, that there is none, or the next question
 */
export function findEmail(
  person: Person,
  { patterns, claims, isTaken }: Making,
  { facts: fresh, lists }: Pick<Env, 'facts' | 'lists'>,
  options: AppendEmailOptions,
): FoundEmail | { none: 'no-name-or-domain' | 'no-address-found' } | Wanted {
  const facts = atAnyAge(fresh);
  const env = { facts, lists };
  const { firstName, lastName, domain } = person;
  if (firstName.replace('.', '').length < 2 || lastName === '' || domain === '') return { none: 'no-name-or-domain' };
  const host = facts({ kind: 'mail-host', domain });
  if (!host.fact) return wantedOf(host);
  if (host.fact.answer.state !== 'hosts') return { none: 'no-address-found' };
  const any = facts({ kind: 'catch-all', domain });
  if (!any.fact) return wantedOf(any);

  const ranked = patterns.ranked(domain, person);
  const made = candidatesFor(person, ranked, claims, isTaken);
  const candidates = made.filter(({ chance }) => chance >= options.leastChance).slice(0, options.candidates);
  const refused = new Set<string>();
  const found = (email: string, via: string, judgement: Judgement): FoundEmail => ({
    email,
    via,
    judgement,
    alternatives: alternativesTo(email, made, refused),
  });
  let risky: FoundEmail | undefined;
  const { state } = any.fact.answer;
  if (state === 'selective') {
    for (const { email } of candidates) {
      const judged = judge(email, env);
      if (judged.ask) return wantedOf(judged);
      if (judged.done.verdict === 'valid') return found(email, 'pattern', judged.done);
      refused.add(email);
    }
  } else if (state === 'catch-all' && candidates[0] && ranked[0]!.seen > 0) {
    const { email } = candidates[0];
    const judged = judge(email, env);
    if (judged.ask) return wantedOf(judged);
    if (judged.done.verdict === 'risky') return found(email, 'pattern', judged.done);
  }
  const questions = options.finders.map((finder) => ({ kind: 'finder', finder, firstName, lastName, domain }) as const);
  for (const question of questions) {
    const { finder } = question;
    const offer = facts(question);
    if (!offer.fact) return wantedOf(offer);
    const { email, lookup, priceCents, pays = 'valid' } = offer.fact.answer;
    if (!email || isTaken(email)) continue;
    const judged = judge(email, env);
    if (judged.ask) return wantedOf(judged);
    if (judged.done.verdict === 'valid') {
      // One that charges for answers or questions has been paid.
      if (pays !== 'valid') return found(email, finder, judged.done);
      const bought = facts({ kind: 'purchase', finder, lookup, priceCents });
      return bought.fact ? found(email, finder, judged.done) : wantedOf(bought);
    }
    if (judged.done.verdict === 'risky') risky ??= found(email, finder, judged.done);
  }
  if (risky) return risky;
  return firstWanted(questions.map((question) => fresh(question))) ?? { none: 'no-address-found' };
}

const alternativesTo = (email: string, made: readonly Candidate[], refused: ReadonlySet<string>): string[] =>
  made.flatMap((one) => (one.email === email || refused.has(one.email) ? [] : [one.email])).slice(0, MOST_ALTERNATIVES);
