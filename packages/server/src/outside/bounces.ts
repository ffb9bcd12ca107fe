import { ANY_AGE, atAnyAge, readBounces, type BounceState } from '@sieve/core';
import type { BouncesTold } from '@sieve/contract';
import { inTransaction, type Db } from '../db/open';
import { factsAt, keepFact } from './facts';

/**
 * Keeps what bounces say as facts: of each address that nobody is there or that its mailbox is full, and of each domain whose server had
 * accepted what came back.
 *
 * @param now ms since 1970
 */
export function keepBounces(db: Db, text: string, now: number): BouncesTold {
  const { bounces, unread } = readBounces(text);
  return inTransaction(db, () => {
    const facts = atAnyAge(factsAt(db, now, ANY_AGE));
    const accepted = new Map<string, Set<string>>();
    const count = (state: BounceState) => bounces.filter((bounce) => bounce.state === state).length;
    for (const { email, state } of bounces) {
      if (state === 'refused') continue;
      const question = { kind: 'mailbox', email } as const;
      if (state === 'no-mailbox' && facts(question).fact?.answer.state === 'accepted') {
        const domain = email.slice(email.lastIndexOf('@') + 1);
        accepted.set(domain, (accepted.get(domain) ?? new Set()).add(email));
      }
      keepFact(db, question, { state, code: state === 'full' ? 552 : 550 }, now, null);
    }
    for (const [domain, addresses] of accepted) {
      const known = facts({ kind: 'bounces', domain }).fact?.answer.addresses ?? [];
      keepFact(db, { kind: 'bounces', domain }, { addresses: [...new Set([...known, ...addresses])] }, now, null);
    }
    return {
      invalid: count('no-mailbox'),
      full: count('full'),
      refused: count('refused'),
      unread,
      domains: [...accepted.keys()].sort(),
    };
  });
}
