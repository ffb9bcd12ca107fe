import { randomBytes } from 'node:crypto';
import type { Answer, AnswerOf, Question } from '@sieve/core';
import type { Settings } from '@sieve/contract';
import { buyAddress, findAddress, FinderDown } from './finder/finder';
import { probeMailbox } from './mail/probe';
import { mailResolver } from './mail/resolver';
import { paced, sleep } from './wrap/pace';

/** How often a server that says "try later" is asked in all. */
const GREYLIST_TRIES = 3;

/** Answers any question by asking whoever can. Rejects with FinderDown, or when the signal says stop. */
export type Ask = (question: Question, signal: AbortSignal) => Promise<Answer>;

/** The real clients, set up from the settings. */
export function asking(settings: Settings): Ask {
  const resolver = mailResolver(settings.nameServer);
  const turn = paced();
  const { mail } = settings;

  async function askServer(email: string, signal: AbortSignal): Promise<AnswerOf<'mailbox'>> {
    const domain = email.slice(email.lastIndexOf('@') + 1);
    const answer = await resolver.hosts(domain);
    const hosts = answer.state === 'hosts' ? answer.hosts.slice(0, 2) : [];
    let last: AnswerOf<'mailbox'> = { state: 'no-answer', code: 0 };
    for (const host of hosts) {
      const [address] = await resolver.addresses(host);
      if (!address) continue;
      await turn(host, mail.perServerPerSecond, signal);
      last = await probeMailbox(email, {
        address,
        port: mail.port,
        helo: mail.helo,
        from: mail.from,
        timeoutMs: mail.timeoutMs,
      });
      if (last.state !== 'no-answer') return last;
    }
    return last;
  }

  async function askMailbox(email: string, signal: AbortSignal): Promise<AnswerOf<'mailbox'>> {
    for (let attempt = 1; ; attempt++) {
      const answer = await askServer(email, signal);
      if (answer.state !== 'try-later' || attempt === GREYLIST_TRIES) return answer;
      await sleep(mail.retryAfterSeconds * 1000, signal);
    }
  }

  const finderOf = (id: string) => {
    const finder = settings.finders.find((known) => known.id === id);
    if (!finder) throw new FinderDown(id, 'it is not in the settings');
    return finder;
  };

  return async (question, signal) => {
    switch (question.kind) {
      case 'mail-host':
        return resolver.hosts(question.domain);
      case 'mailbox':
        return askMailbox(question.email, signal);
      case 'catch-all': {
        const nobody = `${randomBytes(9).toString('hex')}@${question.domain}`;
        const { state } = await askMailbox(nobody, signal);
        if (state === 'try-later' || state === 'no-answer') return { state };
        return { state: state === 'accepted' ? 'catch-all' : state === 'no-mailbox' ? 'selective' : 'unclear' };
      }
      case 'finder': {
        const finder = finderOf(question.finder);
        await turn(`finder ${finder.id}`, finder.perSecond, signal);
        return findAddress(finder, question, signal);
      }
      case 'purchase':
        return buyAddress(finderOf(question.finder), question.lookup, signal);
    }
  };
}
