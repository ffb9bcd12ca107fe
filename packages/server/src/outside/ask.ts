import { createHash } from 'node:crypto';
import { answeredBy, DIRECTORY, questionKey, type Answer, type AnswerOf, type Fact, type Question } from '@sieve/core';
import { verifierOf, type ServiceSetting, type Settings } from '@sieve/contract';
import { directoryClient } from './directory/client';
import { firmsNamed } from './directory/firms-named';
import { buyAddress, findAddress, ownerOf } from './finder/finder';
import { buyRecord, offerOf, searchFirms } from './firms/firms';
import { readByModel } from './language-model/language-model';
import { buyTopics, topicsOffered } from './topics/topics';
import { likelyLocal, randomLocal } from './mail/nobody';
import { mailProbe } from './mail/probe';
import { mailResolver } from './mail/resolver';
import { listedPhones } from './phones/phones';
import type { Call } from './service-days';
import { verifyAddress } from './verifiers/verifiers';
import { readSite } from './web/read-site';
import { isPublic } from './wrap/guard';
import { MOST_HELD_MS, paced } from './wrap/pace';
import { ServiceDown, TooFast } from './wrap/service-down';

/**
 * Answers any question by asking whoever can. Rejects with ServiceDown, or when the signal says stop.
 *
 * @param stale what was answered before, where that is too old
 */
export type Ask = (question: Question, signal: AbortSignal, stale?: Fact | null) => Promise<Answer>;

/** The same for a question that is asked again because its answer was lost, another one once an answer is too old. */
function nameOf(question: Question, stale: Fact | null): string {
  const parts = [question.kind, answeredBy(question), questionKey(question), stale?.askedAt ?? 0];
  return createHash('sha256').update(JSON.stringify(parts)).digest('base64url');
}

/** Mail servers of a domain that are tried for one address. */
const MOST_HOSTS = 2;

/** So many mail servers, and no other, that nobody could connect to: the port is closed on the way, as in most offices. Common practice, no source. */
const MOST_UNREACHED = 8;

/**
 * The real clients, set up from the settings.
 *
 * @param heard is told of every question to a service that sells
 */
export function asking(settings: Settings, heard: (call: Call) => void = () => undefined): Ask {
  const resolver = mailResolver(settings.nameServer);
  const { turn, hold } = paced();
  const probe = mailProbe();
  const { mail, companyService, topicService, languageModel } = settings;
  const directory = settings.directory && directoryClient(settings.directory);
  /** Addresses that nobody has, the same ones each time: a server that greylists wants to see them again. */
  const nobodies = new Map<string, string[]>();
  function nobodiesAt(domain: string): string[] {
    const known = nobodies.get(domain) ?? [`${randomLocal()}@${domain}`, `${likelyLocal()}@${domain}`];
    nobodies.set(domain, known);
    return known;
  }

  /** Whether a domain takes mail for anybody. A verifier is paid for one answer and says it with that; servers are asked for both nobodies. */
  async function askCatchAll(domain: string, as: string, signal: AbortSignal): Promise<AnswerOf<'catch-all'>> {
    let putOff = false;
    for (const nobody of nobodiesAt(domain)) {
      const { state, by, cents, takesAny } = await askMailbox(nobody, as, signal);
      const paid = by === undefined ? {} : { by, cents };
      if (takesAny ?? state === 'accepted') return { state: 'catch-all', ...paid };
      if (state === 'no-answer') return { state, ...paid };
      if (state === 'try-later') putOff = true;
      else if (state !== 'no-mailbox') return { state: 'unclear', ...paid };
      else if (by !== undefined) return { state: 'selective', ...paid };
    }
    return { state: putOff ? 'try-later' : 'selective' };
  }

  /** The mail servers of a domain, or the verifier in their place. */
  async function askMailbox(email: string, as: string, signal: AbortSignal): Promise<AnswerOf<'mailbox'>> {
    if (mail.through === '') return askServer(email, signal);
    return sold(verifierOf(settings), mail.through, signal, (verifier) => verifyAddress(verifier, email, as, signal));
  }

  /** Mail servers that could not be connected to; null once one could. */
  let unreached: Set<string> | null = new Set();
  function mustReach() {
    if (unreached && unreached.size >= MOST_UNREACHED)
      throw new ServiceDown(
        'Mail servers',
        `none of ${unreached.size} could be connected to, so port ${mail.port} is probably closed here: choose a verifier in the settings, under Mail servers`,
      );
  }

  async function askServer(email: string, signal: AbortSignal): Promise<AnswerOf<'mailbox'>> {
    mustReach();
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
      last = await probe(
        email,
        {
          address,
          port: mail.port,
          helo: mail.helo,
          from: mail.from,
          timeoutMs: mail.timeoutMs,
          onConnect: () => (unreached = null),
        },
        signal,
      );
      if (last.state === 'no-answer') unreached?.add(host);
      mustReach();
      if (last.state !== 'no-answer') return last;
    }
    return last;
  }

  const directoryOrDown = () => {
    if (!directory) throw new ServiceDown('the directory', 'none is set up in the settings');
    return directory;
  };

  /** Asks a service when its turn has come; after 429 nobody asks it for as long as it says, then in turn again. */
  async function sold<T extends ServiceSetting, A>(
    known: T | null | undefined,
    id: string,
    signal: AbortSignal,
    call: (service: T) => Promise<A>,
  ): Promise<A> {
    if (known?.id !== id) throw new ServiceDown(id, 'it is not in the settings');
    const line = `service ${id}`;
    for (let heldMs = 0; ;) {
      await turn(line, known.perSecond, signal);
      const began = performance.now();
      const hear = (outage: string) => heard({ who: id, ms: performance.now() - began, outage });
      try {
        const answer = await call(known);
        hear('');
        return answer;
      } catch (error) {
        if (error instanceof TooFast && heldMs < MOST_HELD_MS) {
          heldMs += hold(line, error.waitMs);
          continue;
        }
        if (error instanceof ServiceDown) hear(error.reason);
        throw error;
      }
    }
  }
  const byId = <T extends { id: string }>(services: readonly T[], id: string) => services.find((one) => one.id === id);

  return async (question, signal, stale = null) => {
    switch (question.kind) {
      case 'mail-host':
        return resolver.hosts(question.domain);
      case 'mailbox':
        return askMailbox(question.email, nameOf(question, stale), signal);
      case 'catch-all':
        return askCatchAll(question.domain, nameOf(question, stale), signal);
      case 'finder':
        return sold(byId(settings.finders, question.finder), question.finder, signal, (finder) =>
          findAddress(finder, question, nameOf(question, stale), signal),
        );
      case 'purchase':
        return sold(byId(settings.finders, question.finder), question.finder, signal, (finder) =>
          buyAddress(finder, question.lookup, signal),
        );
      case 'owner':
        return sold(byId(settings.finders, question.finder), question.finder, signal, (finder) =>
          ownerOf(finder, question.email, nameOf(question, stale), signal),
        );
      case 'phones':
        return sold(byId(settings.phoneServices, question.service), question.service, signal, (service) =>
          listedPhones(service, question, nameOf(question, stale), signal),
        );
      case 'bounces':
        throw new Error('bounces are brought in, nobody is asked');
      case 'profiles':
        return directoryOrDown().named(question, signal);
      case 'website':
        return readSite(question.domain, settings.web, resolver, signal);
      case 'firm-search':
        if (question.service === DIRECTORY) return firmsNamed(directoryOrDown(), question, signal);
        return sold(companyService, question.service, signal, (service) => searchFirms(service, question, signal));
      case 'firm-offer':
        return sold(companyService, question.service, signal, (service) => offerOf(service, question, signal));
      case 'firm-record':
        return sold(companyService, question.service, signal, (service) => buyRecord(service, question, signal));
      case 'topic-offer':
        return sold(topicService, question.service, signal, (service) => topicsOffered(service, question, signal));
      case 'topic-record':
        return sold(topicService, question.service, signal, (service) => buyTopics(service, question, signal));
      case 'site-question':
        return sold(languageModel, question.service, signal, (service) => readByModel(service, question, signal));
    }
  };
}
