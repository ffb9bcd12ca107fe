import {
  answeredBy,
  merge,
  priceOf as priceInCents,
  questionKey,
  siftTo,
  type Contact,
  type Question,
} from '@sieve/core';
import { jobRow } from '../jobs/store';
import { spentCents } from '../ledger/store';
import type { Ask } from '../outside/ask';
import { keepFact } from '../outside/facts';
import { sleep } from '../outside/wrap/pace';
import { ServiceDown } from '../outside/wrap/service-down';
import type { RunContext, RunHandler } from '../runs/context';
import { loadSift } from './load-sift';

/** Domains that are asked about at the same time. */
const AT_ONCE = 32;
/** A longer run shows what it has found so far this often. */
const SHOW_EVERY_MS = 8000;
/** How often a server that says "try later" is asked in all. */
const GREYLIST_TRIES = 3;

/**
 * Asks what the contacts that wait at a step need, domain by domain: the next question of each contact, until none is left.
 * Every answer is kept, with its charge, before the next question; so a run that was stopped anywhere goes on where it was.
 * Who is asked about in vain goes on waiting.
 */
export const askHandler =
  (ask: Ask): RunHandler<'ask'> =>
  async (context) => {
    const { db, jobId, input, settings, kept, progress, signal, now } = context;
    const onTidied = () => signal.throwIfAborted();
    const loaded = await loadSift(db, jobId, { lists: settings.lists, now: now(), kept, onTidied });
    const merged = merge(loaded);
    const before = siftTo(input.step, loaded, merged);
    const last = input.upTo ?? Infinity;
    const waits = before.came.filter((contact) => before.take(contact)?.state === 'waits' && contact.id <= last);
    const waiting = new Set(waits.map(({ id }) => id));
    const { came, take } = siftTo(input.step, loaded, merged);
    const groups = byDomain(came)
      .map((group) => group.slice(0, group.findLastIndex(({ id }) => waiting.has(id)) + 1))
      .filter((group) => group.length > 0);
    /** Those whose server wants to be asked later, the soonest first: all wait the same time. */
    const parked: { group: Contact[]; readyAt: number }[] = [];
    const budget = budgetOf(context);
    /** By who answers. */
    const down = new Map<string, { finder: string; reason: string }>();
    const silent = new Set<string>();
    /** How often a question was answered with "try later". */
    const tries = new Map<string, number>();
    const counts = { settled: 0, silent: 0, unaffordable: 0 };
    let done = 0;
    let shown = now();
    progress(0, waiting.size);

    async function settle(contact: Contact): Promise<keyof typeof counts | 'down' | 'later'> {
      for (;;) {
        signal.throwIfAborted();
        const stop = take(contact);
        if (stop?.state !== 'waits') return 'settled';
        const question = priced(stop.ask, settings);
        const key = `${question.kind} ${questionKey(question)}`;
        if (silent.has(key)) return 'silent';
        if (down.has(answeredBy(question))) return 'down';
        const cents = priceOf(context, question);
        if (cents > 0 && !(await budget.reserve(contact.id, cents))) return 'unaffordable';
        try {
          const answer = await ask(question, signal);
          keepFact(db, question, answer, now(), { jobId, reason: reasonOf(question, contact) });
          loaded.facts.forget(question);
          if (loaded.facts(question).fact !== null) continue;
          const tried = (tries.get(key) ?? 0) + 1;
          tries.set(key, tried);
          if ('state' in answer && answer.state === 'try-later' && tried < GREYLIST_TRIES) return 'later';
          silent.add(key);
        } catch (error) {
          if (!(error instanceof ServiceDown)) throw error;
          down.set(answeredBy(question), { finder: error.service, reason: error.reason });
        }
      }
    }

    /** In order and all of them, as sifting takes them: who is through teaches those who come after. */
    async function settleAll(group: Contact[]): Promise<void> {
      for (let contact = group[0]; contact; contact = group[0]) {
        const ended = await settle(contact).finally(() => budget.release(contact.id));
        if (ended === 'later') {
          // Others are asked meanwhile; this one keeps its place in its domain.
          const readyAt = performance.now() + settings.mail.retryAfterSeconds * 1000;
          return void parked.push({ group, readyAt });
        }
        group.shift();
        if (!waiting.has(contact.id)) continue;
        if (ended !== 'down') counts[ended]++;
        progress(++done, waiting.size);
        if (now() - shown > SHOW_EVERY_MS) {
          shown = now();
          context.sift();
        }
      }
    }

    const worker = async () => {
      for (;;) {
        const waitMs = (parked[0]?.readyAt ?? Infinity) - performance.now();
        const group = waitMs <= 0 ? parked.shift()!.group : groups.shift();
        if (group) await settleAll(group);
        else if (parked.length > 0) await sleep(waitMs, signal);
        else return;
      }
    };
    const workers = await Promise.allSettled(Array.from({ length: Math.min(AT_ONCE, groups.length) }, worker));
    const failed = workers.find((result) => result.status === 'rejected');
    if (failed) throw failed.reason as Error;
    return {
      code: 'asked',
      contacts: waiting.size,
      ...counts,
      down: [...down.values()],
    };
  };

/** Contacts of one domain together and in order; who has none is asked about alone. */
function byDomain(contacts: readonly Contact[]): Contact[][] {
  const groups = new Map<string, Contact[]>();
  for (const contact of contacts) {
    const { id, person } = contact;
    const { email, domain } = person;
    const key = email ? email.slice(email.lastIndexOf('@') + 1) : domain || `contact ${id}`;
    const group = groups.get(key);
    if (group) group.push(contact);
    else groups.set(key, [contact]);
  }
  return [...groups.values()];
}

/** What a question may lead to being charged: what it sells, or, of a finder that looks for nothing, what it would find. */
const priceOf = ({ settings }: Pick<RunContext, 'settings'>, question: Question): number =>
  question.kind === 'finder'
    ? (settings.finders.find(({ id }) => id === question.finder)?.priceCents ?? 0)
    : priceInCents(question);

/** A language model asks a price for each question, which the settings know. */
const priced = (question: Question, { languageModel }: RunContext['settings']): Question =>
  question.kind === 'site-question' ? { ...question, priceCents: languageModel?.priceCents ?? 0 } : question;

const BOUGHT: Partial<Record<Question['kind'], string>> = {
  'firm-record': 'details of',
  'topic-record': 'what is read this week at',
  'site-question': 'the website read of',
};
const reasonOf = ({ kind }: Question, { id, person }: Contact): string =>
  BOUGHT[kind] ? `${BOUGHT[kind]} ${person.company || person.domain}` : `valid address for contact ${id}`;

/**
 * Keeps what may still be charged under the budget: a contact's price is set apart before a finder is asked. Who finds too little
 * left waits for what others set apart and do not spend.
 */
function budgetOf({ db, jobId, signal }: Pick<RunContext, 'db' | 'jobId' | 'signal'>) {
  const limit = jobRow(db, jobId)!.budgetCents;
  const reserved = new Map<number, number>();
  let waiting: (() => void)[] = [];
  const wakeAll = () => {
    const woken = waiting;
    waiting = [];
    for (const wake of woken) wake();
  };
  signal.addEventListener('abort', wakeAll);

  function release(contact: number) {
    if (reserved.delete(contact)) wakeAll();
  }

  return {
    release,
    /** @returns false when the price is more than what is left, whatever others give back */
    async reserve(contact: number, cents: number): Promise<boolean> {
      // Nobody waits while holding: two who want more would wait for each other.
      release(contact);
      for (;;) {
        signal.throwIfAborted();
        const left = limit - spentCents(db, jobId);
        if (cents > left) return false;
        const others = [...reserved.values()].reduce((sum, kept) => sum + kept, 0);
        if (others + cents <= left) break;
        await new Promise<void>((wake) => waiting.push(wake));
      }
      reserved.set(contact, cents);
      return true;
    },
  };
}
