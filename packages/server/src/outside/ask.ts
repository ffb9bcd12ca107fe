import { randomBytes } from 'node:crypto';
import type { Answer, AnswerOf, Question } from '@sieve/core';
import type { FinderSetting, Settings } from '@sieve/contract';
import { directoryClient } from './directory/client';
import { buyAddress, findAddress } from './finder/finder';
import { buyRecord, offerOf, searchFirms } from './firms/firms';
import { readByModel } from './language-model/language-model';
import { buyTopics, topicsOffered } from './topics/topics';
import { probeMailbox } from './mail/probe';
import { mailResolver } from './mail/resolver';
import { readSite } from './web/read-site';
import { isPublic } from './wrap/guard';
import { paced } from './wrap/pace';
import { ServiceDown } from './wrap/service-down';

/** Answers any question by asking whoever can. Rejects with ServiceDown, or when the signal says stop. */
export type Ask = (question: Question, signal: AbortSignal) => Promise<Answer>;

/** Mail servers of a domain that are tried for one address. */
const MOST_HOSTS = 2;

/** The real clients, set up from the settings. */
export function asking(settings: Settings): Ask {
  const resolver = mailResolver(settings.nameServer);
  const turn = paced();
  const { mail } = settings;
  const directory = settings.directory && directoryClient(settings.directory);
  /** An address that nobody has, the same one each time: a server that greylists wants to see it again. */
  const nobodies = new Map<string, string>();
  function nobodyAt(domain: string): string {
    const known = nobodies.get(domain) ?? `${randomBytes(9).toString('hex')}@${domain}`;
    nobodies.set(domain, known);
    return known;
  }

  async function askServer(email: string, signal: AbortSignal): Promise<AnswerOf<'mailbox'>> {
    const domain = email.slice(email.lastIndexOf('@') + 1);
    const answer = await resolver.hosts(domain);
    const hosts = answer.state === 'hosts' ? answer.hosts : [];
    let tried = 0;
    // Until a host could not be found out about, it may be that none can be reached at all.
    let last: AnswerOf<'mailbox'> = { state: hosts.length > 0 ? 'no-server' : 'no-answer', code: 0 };
    for (const host of hosts) {
      const addresses = await resolver.addresses(host);
      const address = mail.simulated ? addresses?.[0] : addresses?.find(isPublic);
      if (!address) {
        if (addresses === null) last = { state: 'no-answer', code: 0 };
        continue;
      }
      if (tried++ === MOST_HOSTS) break;
      await turn(host, mail.perServerPerSecond, signal);
      last = await probeMailbox(
        email,
        {
          address,
          port: mail.port,
          helo: mail.helo,
          from: mail.from,
          timeoutMs: mail.timeoutMs,
        },
        signal,
      );
      if (last.state !== 'no-answer') return last;
    }
    return last;
  }

  const finderOf = (id: string) => {
    const finder = settings.finders.find((known) => known.id === id);
    if (!finder) throw new ServiceDown(id, 'it is not in the settings');
    return finder;
  };

  /** The service of a question, when its turn has come. */
  async function serviceOf<T extends FinderSetting>(known: T | null, id: string, signal: AbortSignal): Promise<T> {
    if (known?.id !== id) throw new ServiceDown(id, 'it is not in the settings');
    await turn(`service ${id}`, known.perSecond, signal);
    return known;
  }

  return async (question, signal) => {
    switch (question.kind) {
      case 'mail-host':
        return resolver.hosts(question.domain);
      case 'mailbox':
        return askServer(question.email, signal);
      case 'catch-all': {
        const { state } = await askServer(nobodyAt(question.domain), signal);
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
      case 'profiles':
        if (!directory) throw new ServiceDown('the directory', 'none is set up in the settings');
        return directory.named(question, signal);
      case 'website':
        return readSite(question.domain, settings.web, resolver, signal);
      case 'firm-search':
        return searchFirms(await serviceOf(settings.companyService, question.service, signal), question, signal);
      case 'firm-offer':
        return offerOf(await serviceOf(settings.companyService, question.service, signal), question, signal);
      case 'firm-record':
        return buyRecord(await serviceOf(settings.companyService, question.service, signal), question, signal);
      case 'topic-offer':
        return topicsOffered(await serviceOf(settings.topicService, question.service, signal), question, signal);
      case 'topic-record':
        return buyTopics(await serviceOf(settings.topicService, question.service, signal), question, signal);
      case 'site-question':
        return readByModel(await serviceOf(settings.languageModel, question.service, signal), question, signal);
    }
  };
}
