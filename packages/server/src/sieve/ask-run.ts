import { setMaxListeners } from 'node:events';
import {
  groupedBy,
  answeredBy,
  merge,
  priceOf as priceInCents,
  questionKey,
  siftTo,
  soldBy,
  type Answer,
  type Contact,
  type Question,
} from '@sieve/core';
import { servicesIn, verifierOf } from '@sieve/contract';
import { inTransaction } from '../db/open';
import { budgetFor, leftOfCaps } from '../ledger/budget';
import { creditsLeft, planMonthOf } from '../ledger/plans';
import { askedFor, askedNoMore, brokenOff, spentMeter, type MaybeCharged } from '../ledger/store';
import type { Ask } from '../outside/ask';
import { keepFact } from '../outside/facts';
import { sleep } from '../outside/wrap/pace';
import { ServiceDown } from '../outside/wrap/service-down';
import type { RunContext, RunHandler } from '../runs/context';
import { loadSift } from './load-sift';

/** Domains that are asked about at the same time; each that takes long makes room for another, up to so many. */
const AT_ONCE = 32;
const MOST_AT_ONCE = 500;
const LONG_MS = 1000;
/** A domain whose servers said nothing about so many, one after the other, is left for another time. */
const MOST_UNHEARD = 2;
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
    // Every question on its way listens.
    setMaxListeners(0, signal);
    const onTidied = () => signal.throwIfAborted();
    const loaded = await loadSift(db, jobId, { lists: settings.lists, now: now(), kept, onTidied });
    const merged = merge(loaded);
    const before = siftTo(input.step, loaded, merged);
    const allWaiting = before.came.flatMap((contact) => (before.take(contact)?.state === 'waits' ? contact.id : []));
    const waiting = new Set(allWaiting.filter((id) => id <= (input.upTo ?? Infinity)));
    const { came, take } = siftTo(input.step, loaded, merged);
    const groups = byDomain(came)
      .map((group) => group.slice(0, group.findLastIndex(({ id }) => waiting.has(id)) + 1))
      .filter((group) => group.length > 0);
    /** Those whose server wants to be asked later, the soonest first: all wait the same time. */
    const parked: { group: Contact[]; readyAt: number }[] = [];
    const isNeeded = ({ step, contact }: MaybeCharged) =>
      step === input.step ? allWaiting.includes(contact) : loaded.sieve.some(({ id, on }) => on && id === step);
    const budget = budgetOf(context, isNeeded);
    /** By who answers. */
    const down = new Map<string, { finder: string; reason: string }>();
    const nameOf = (service: string) => servicesIn(settings).find(({ id }) => id === service)?.name ?? service;
    const silent = new Set<string>();
    /** How many questions in a row the servers of a domain said nothing to. */
    const unheard = new Map<string, number>();
    /** How often a question was answered with "try later". */
    const tries = new Map<string, number>();
    /** Questions on their way: who needs the same answer waits for it. */
    const onTheWay = new Map<string, Promise<unknown>>();
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
        const key = `${question.kind} ${answeredBy(question)} ${questionKey(question)}`;
        const sent = onTheWay.get(key);
        if (sent) {
          await sent;
          continue;
        }
        const domain = mailDomain(question);
        if (silent.has(key) || (unheard.get(domain) ?? 0) >= MOST_UNHEARD) return 'silent';
        if (down.has(answeredBy(question))) return 'down';
        const cents = priceOf(context, question);
        const who = sellerOf(context, question);
        const mayCost = { who, question: questionKey(question), step: input.step, contact: contact.id, cents };
        if (cents > 0) {
          const lacking = await budget.reserve(mayCost);
          if (lacking === 'budget') return 'unaffordable';
          if (lacking) {
            down.set(answeredBy(question), { finder: nameOf(who), reason: `its cap of the ${lacking} is reached` });
            return 'down';
          }
          // Somebody may have asked while this one waited for its price.
          if (onTheWay.has(key)) continue;
          askedFor(db, jobId, mayCost);
        }
        const asked = ask(question, signal, stop.stale).then((answer) => {
          const plan = planMonthOf(settings, soldBy(question, answer), now());
          const charge = { jobId, reason: reasonOf(question, contact), contact: contact.id, plan };
          inTransaction(db, () => {
            keepFact(db, question, answer, now(), charge, stop.stale);
            if (cents > 0) askedNoMore(db, mayCost);
          });
          loaded.facts.forget(question);
          return answer;
        });
        onTheWay.set(
          key,
          asked.catch(() => undefined),
        );
        const long = setTimeout(addWorker, LONG_MS);
        try {
          const answer = await asked;
          if (domain !== '') unheard.set(domain, isUnheard(answer) ? (unheard.get(domain) ?? 0) + 1 : 0);
          if (loaded.facts(question).fact !== null) continue;
          const tried = (tries.get(key) ?? 0) + 1;
          tries.set(key, tried);
          if ('state' in answer && answer.state === 'try-later' && tried < GREYLIST_TRIES) return 'later';
          silent.add(key);
        } catch (error) {
          if (!(error instanceof ServiceDown)) throw error;
          down.set(answeredBy(question), { finder: nameOf(error.service), reason: error.reason });
          if (cents > 0) askedNoMore(db, mayCost);
        } finally {
          clearTimeout(long);
          onTheWay.delete(key);
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
    const workers: Promise<void>[] = [];
    function addWorker() {
      if (groups.length === 0 || workers.length === MOST_AT_ONCE) return;
      const added = worker();
      // What it fails with is read below.
      added.catch(() => undefined);
      workers.push(added);
    }
    for (let n = 0; n < AT_ONCE; n++) addWorker();
    const failures: unknown[] = [];
    // Others are added meanwhile.
    for (const added of workers) await added.catch((error: unknown) => failures.push(error));
    if (failures.length > 0) throw failures[0];
    return {
      code: 'asked',
      contacts: waiting.size,
      ...counts,
      down: [...down.values()],
    };
  };

/** The domain whose mail servers answer a question; '' for other questions. */
function mailDomain(question: Question): string {
  if (question.kind === 'catch-all') return question.domain;
  return question.kind === 'mailbox' ? question.email.slice(question.email.lastIndexOf('@') + 1) : '';
}

/** A mail server said nothing at all; a verifier that cannot say speaks of one address. */
const isUnheard = (answer: Answer): boolean => 'state' in answer && answer.state === 'no-answer' && !('by' in answer);

/** Contacts of one domain together and in order; who has none is asked about alone. */
function byDomain(contacts: readonly Contact[]): Contact[][] {
  const domainOf = ({ id, person: { email, domain } }: Contact) =>
    email ? email.slice(email.lastIndexOf('@') + 1) : domain || `contact ${id}`;
  return [...groupedBy(contacts, domainOf).values()];
}

/** What a question may lead to being charged: what it sells, or, of a finder that looks for nothing, what it would find. */
function priceOf(context: Pick<RunContext, 'settings'>, question: Question): number {
  if (!['finder', 'owner', 'phones', 'mailbox', 'catch-all'].includes(question.kind)) return priceInCents(question);
  const seller = sellerOf(context, question);
  return servicesIn(context.settings).find(({ id }) => id === seller)?.priceCents ?? 0;
}

/** Who is paid for the answer to a question: mail servers are not, a verifier in their place is. */
const sellerOf = ({ settings }: Pick<RunContext, 'settings'>, question: Question): string =>
  question.kind === 'mailbox' || question.kind === 'catch-all'
    ? (verifierOf(settings)?.id ?? '')
    : answeredBy(question);

/** A language model asks a price for each question, which the settings know. */
const priced = (question: Question, { languageModel }: RunContext['settings']): Question =>
  question.kind === 'site-question' ? { ...question, priceCents: languageModel?.priceCents ?? 0 } : question;

const REASONS: Partial<Record<Question['kind'], string>> = {
  finder: 'address looked up',
  owner: 'who has the address',
  phones: 'phone looked up',
  mailbox: 'address verified',
  'catch-all': 'whether its domain takes any address',
};
/** What is bought of a company. */
const BOUGHT: Partial<Record<Question['kind'], string>> = {
  'firm-record': 'details of',
  'topic-record': 'what is read this week at',
  'site-question': 'the website read of',
};

/** Why a contact, who stands beside it in the ledger, was paid for. */
function reasonOf({ kind }: Question, { person }: Contact): string {
  const bought = BOUGHT[kind];
  return bought ? `${bought} ${person.company || person.domain}` : (REASONS[kind] ?? 'valid address');
}

/**
 * Keeps what may still be charged under the budget: a contact's price is set apart before a finder is asked. Who finds too little
 * left waits for what others set apart and do not spend.
 *
 * @param isNeeded whether a question of a run that broke off will be asked again; then what it may have been charged stays set apart until it is
 */
function budgetOf(
  { db, jobId, settings, now, signal }: Pick<RunContext, 'db' | 'jobId' | 'settings' | 'now' | 'signal'>,
  isNeeded: (one: MaybeCharged) => boolean,
) {
  const spent = spentMeter(db);
  const leftAt = budgetFor(db, jobId, settings, spent);
  const reserved = new Map<number, { service: string; cents: number; credits: number }>();
  const setApart = (of: 'cents' | 'credits', service?: string) =>
    [...reserved.values()].reduce(
      (sum, kept) => (service === undefined || kept.service === service ? sum + kept[of] : sum),
      0,
    );
  let lost: MaybeCharged[] = [];
  for (const one of brokenOff(db, jobId))
    if (isNeeded(one)) lost.push(one);
    else askedNoMore(db, one);
  const sumOf = (of: readonly { cents: number }[]) => of.reduce((sum, { cents }) => sum + cents, 0);
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
    /** @returns what leaves too little, whatever others give back; null once a credit of the service's plan or its price is set apart */
    async reserve({
      who: service,
      question,
      contact,
      cents,
    }: MaybeCharged): Promise<'budget' | 'day' | 'month' | null> {
      const lostByOthers = () => lost.filter((one) => one.who !== service || one.question !== question);
      // Nobody waits while holding: two who want more would wait for each other.
      release(contact);
      const setting = servicesIn(settings).find(({ id }) => id === service);
      for (;;) {
        signal.throwIfAborted();
        const credits = creditsLeft(spent, settings, service, now());
        if (credits > setApart('credits', service)) {
          lost = lostByOthers();
          reserved.set(contact, { service, cents: 0, credits: 1 });
          return null;
        }
        const left = leftAt(now()).cents - sumOf(lostByOthers());
        const known = setting && leftOfCaps(spent, setting, settings, now());
        const cap = known && {
          ...known,
          cents: known.cents - sumOf(lostByOthers().filter(({ who }) => who === service)),
        };
        // Credits that others set apart may be given back.
        if (credits === 0 && cents > left) return 'budget';
        if (credits === 0 && cap && cents > cap.cents) return cap.of;
        if (setApart('cents') + cents <= left && (!cap || setApart('cents', service) + cents <= cap.cents)) break;
        await new Promise<void>((wake) => waiting.push(wake));
      }
      lost = lostByOthers();
      reserved.set(contact, { service, cents, credits: 0 });
      return null;
    },
  };
}
