import { judge, type Progress } from '../../mail/judge';
import type { Person } from '../../model/person';
import type { Facts } from '../../model/question';
import type { OptionsOf } from '../../model/step';
import type { Judgement } from '../../model/verdict';
import type { Patterns } from './learn';
import { localPart } from './patterns';

/** An address that was added, where it came from, and what else it could be. */
export interface Appended {
  email: string;
  via: string;
  judgement: Judgement;
  alternatives: string[];
}

export type AppendOutcome = { found: Appended } | { none: 'no-name-or-domain' | 'no-address-found' };

/**
 * Looks for the address of one person: candidates made from the name, most likely first, then the finders in
 * lookup order; the first address that verifies is taken, and only then is a finder paid.
 *
 * Where a domain takes mail for anybody nothing can verify: the likeliest candidate of a known pattern, else a
 * finder's answer, is given as risky and costs nothing.
 *
 * @returns the outcome, or the next question
 */
export function appendEmail(
  person: Person,
  patterns: Patterns,
  facts: Facts,
  options: OptionsOf<'append'>,
): Progress<AppendOutcome> {
  const { firstName, lastName, domain } = person;
  if (firstName.replace('.', '').length < 2 || lastName === '' || domain === '')
    return { done: { none: 'no-name-or-domain' } };
  const host = facts({ kind: 'mail-host', domain });
  if (!host) return { ask: { kind: 'mail-host', domain } };
  if (host.answer.state !== 'hosts') return { done: { none: 'no-address-found' } };
  const any = facts({ kind: 'catch-all', domain });
  if (!any) return { ask: { kind: 'catch-all', domain } };

  const ranked = patterns.ranked(domain);
  const candidates = [...new Set(ranked.map(({ pattern }) => localPart(pattern, firstName, lastName)))]
    .map((local) => `${local}@${domain}`)
    .slice(0, options.candidates);
  let risky: Appended | undefined;
  if (any.answer.state === 'selective') {
    for (const email of candidates) {
      const judged = judge(email, facts);
      if (judged.ask) return judged;
      if (judged.done.verdict === 'valid') return found(email, 'pattern', judged.done, []);
    }
  } else if (any.answer.state === 'catch-all' && candidates.length > 0 && ranked[0]!.seen > 0) {
    const judged = judge(candidates[0]!, facts);
    if (judged.ask) return judged;
    if (judged.done.verdict === 'risky') return found(candidates[0]!, 'pattern', judged.done, candidates.slice(1, 4));
  }
  for (const finder of options.finders) {
    const question = { kind: 'finder', finder, firstName, lastName, domain } as const;
    const answer = facts(question)?.answer;
    if (!answer) return { ask: question };
    if (!answer.email) continue;
    const judged = judge(answer.email, facts);
    if (judged.ask) return judged;
    if (judged.done.verdict === 'valid') {
      const purchase = { kind: 'purchase', finder, lookup: answer.lookup, priceCents: answer.priceCents } as const;
      if (!facts(purchase)) return { ask: purchase };
      return found(answer.email, finder, judged.done, []);
    }
    if (judged.done.verdict === 'risky')
      risky ??= { email: answer.email, via: finder, judgement: judged.done, alternatives: candidates.slice(0, 3) };
  }
  return { done: risky ? { found: risky } : { none: 'no-address-found' } };
}

const found = (email: string, via: string, judgement: Judgement, alternatives: string[]): Progress<AppendOutcome> => ({
  done: { found: { email, via, judgement, alternatives } },
});
