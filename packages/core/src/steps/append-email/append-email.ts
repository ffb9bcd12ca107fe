import { atAnyAge, type Wanted } from '../../facts/facts';
import { judge } from '../../mail/judge';
import type { Person } from '../../model/person';
import type { Judgement } from '../../model/verdict';
import { waiting, type Env, type Step } from '../step';
import { learningPatterns, type Patterns } from './learn';
import { appendEmailOptions, type AppendEmailOptions } from './options';
import { localPart } from './patterns';

/** Adds the address that a contact lacks. One that is found teaches its domain's pattern to the contacts after it. */
export const appendEmail: Step<AppendEmailOptions> = {
  kind: 'append-email',
  options: appendEmailOptions,
  about: 'contact',
  after: ['match'],
  optional: true,
  asks: true,
  prepare: (all, options, { facts, lists }) => {
    // An address that was found stays found; whether it still takes mail is for the verifying.
    const env = { facts: atAnyAge(facts), lists };
    const patterns = learningPatterns();
    for (const { person } of all)
      if (person.email !== '') patterns.learn(person.email, person.firstName, person.lastName);
    return (contact) => {
      const { person } = contact;
      if (person.email !== '') return null;
      const search = findEmail(person, patterns, env, options);
      if ('ask' in search) return waiting(search);
      if ('none' in search) return { state: 'aside', code: search.none };
      const { email, via, alternatives, judgement } = search;
      contact.person = { ...person, email };
      contact.added = { ...contact.added, email: { via, alternatives } };
      contact.judgement = judgement;
      if (judgement.verdict === 'valid') patterns.learnHere(email, person.firstName, person.lastName);
      return null;
    };
  },
};

/** An address, where it came from, and what else it could be. */
export interface FoundEmail {
  email: string;
  via: string;
  judgement: Judgement;
  alternatives: string[];
}

/**
 * Looks for the address of one person: candidates made from the name, most likely first, then the finders in
 * lookup order; the first address that verifies is taken, and only then is a finder paid.
 *
 * Where a domain takes mail for anybody nothing can verify: the likeliest candidate of a known pattern, else a
 * finder's answer, is given as risky and costs nothing.
 *
 * @returns the address, that there is none, or the next question
 */
export function findEmail(
  person: Person,
  patterns: Patterns,
  env: Pick<Env, 'facts' | 'lists'>,
  options: AppendEmailOptions,
): FoundEmail | { none: 'no-name-or-domain' | 'no-address-found' } | Wanted {
  const { facts } = env;
  const { firstName, lastName, domain } = person;
  if (firstName.replace('.', '').length < 2 || lastName === '' || domain === '') return { none: 'no-name-or-domain' };
  const host = facts({ kind: 'mail-host', domain });
  if (!host.fact) return wanted(host);
  if (host.fact.answer.state !== 'hosts') return { none: 'no-address-found' };
  const any = facts({ kind: 'catch-all', domain });
  if (!any.fact) return wanted(any);

  const ranked = patterns.ranked(domain);
  const candidates = [...new Set(ranked.map(({ pattern }) => localPart(pattern, firstName, lastName)))]
    .map((local) => `${local}@${domain}`)
    .slice(0, options.candidates);
  let risky: FoundEmail | undefined;
  const { state } = any.fact.answer;
  if (state === 'selective') {
    for (const email of candidates) {
      const judged = judge(email, env);
      if (judged.ask) return wanted(judged);
      if (judged.done.verdict === 'valid') return { email, via: 'pattern', judgement: judged.done, alternatives: [] };
    }
  } else if (state === 'catch-all' && candidates.length > 0 && ranked[0]!.seen > 0) {
    const email = candidates[0]!;
    const judged = judge(email, env);
    if (judged.ask) return wanted(judged);
    if (judged.done.verdict === 'risky')
      return { email, via: 'pattern', judgement: judged.done, alternatives: candidates.slice(1, 4) };
  }
  for (const finder of options.finders) {
    const offer = facts({ kind: 'finder', finder, firstName, lastName, domain });
    if (!offer.fact) return wanted(offer);
    const { email, lookup, priceCents } = offer.fact.answer;
    if (!email) continue;
    const judged = judge(email, env);
    if (judged.ask) return wanted(judged);
    if (judged.done.verdict === 'valid') {
      const bought = facts({ kind: 'purchase', finder, lookup, priceCents });
      return bought.fact ? { email, via: finder, judgement: judged.done, alternatives: [] } : wanted(bought);
    }
    if (judged.done.verdict === 'risky')
      risky ??= { email, via: finder, judgement: judged.done, alternatives: candidates.slice(0, 3) };
  }
  return risky ?? { none: 'no-address-found' };
}

const wanted = ({ ask, silent, stale }: Wanted): Wanted => ({ ask, silent, stale });
