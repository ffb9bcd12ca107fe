import { isScreened, patternsOf, settle, sift, type Contact, type Question } from '@sieve/core';
import { forgetStale, keepFact } from '../outside/facts';
import { spentCents, jobRow } from '../jobs/store';
import { FinderDown } from '../outside/finder/finder';
import type { Ask } from '../outside/ask';
import type { RunContext, RunHandler } from '../runs/context';
import { loadSift } from './load-sift';

/** Domains that are asked about at the same time. */
const AT_ONCE = 32;
/** A longer run shows what it has found so far this often. */
const SHOW_EVERY_MS = 8000;

/**
 * Asks what the waiting contacts need, domain by domain: the next question of each contact, until none is left. Every
 * answer is kept, with its charge, before the next question; so a run that was stopped anywhere goes on where it was.
 *
 * @param step append: contacts without an address; verify: addresses that came with the records
 */
export const askHandler =
  (step: 'append' | 'verify', ask: Ask): RunHandler =>
  async (context) => {
    const { db, jobId, progress, signal, now } = context;
    if (step === 'verify') forgetStale(db, now());
    const input = await loadSift(db, jobId, () => signal.throwIfAborted());
    const { contacts } = sift(input);
    const screened = contacts.filter(isScreened);
    const todo = screened.filter((contact) => contact.fate.step === step && contact.fate.state === 'waits');
    const groups = byDomain(screened, new Set(todo));
    const patterns = patternsOf(contacts);
    const budget = budgetOf(context);
    const down = new Map<string, string>();
    let done = 0;
    let left = 0;
    let shown = now();
    progress(0, todo.length);

    async function settleContact(contact: Contact): Promise<void> {
      for (;;) {
        signal.throwIfAborted();
        const question = settle(contact, patterns, input.facts, input.steps);
        if (!question) return;
        if (
          'finder' in question &&
          (down.has(question.finder) || !budget.reserve(contact.id, priceOf(context, question)))
        ) {
          left++;
          return;
        }
        try {
          const answer = await ask(question, signal);
          keepFact(db, question, answer, now(), { jobId, reason: `valid address for contact ${contact.id}` });
          input.facts.forget(question);
        } catch (error) {
          if (!(error instanceof FinderDown)) throw error;
          down.set(error.finder, error.reason);
        }
      }
    }

    const queue = [...groups];
    const worker = async () => {
      for (let group = queue.shift(); group; group = queue.shift()) {
        for (const contact of group) {
          const counted = contact.fate.state === 'waits' && contact.fate.step === step;
          if (step === 'verify' && !counted) continue;
          await settleContact(contact);
          budget.release(contact.id);
          if (!counted) continue;
          progress(++done, todo.length);
          if (now() - shown > SHOW_EVERY_MS) {
            shown = now();
            context.sift();
          }
        }
      }
    };
    const workers = await Promise.allSettled(Array.from({ length: Math.min(AT_ONCE, groups.length) }, worker));
    const failed = workers.find((result) => result.status === 'rejected');
    if (failed) throw failed.reason as Error;
    return closing(todo.length, left, budget.ended(), down);
  };

/** Contacts of one domain together and in order, domains with somebody to ask about only. */
function byDomain(contacts: readonly Contact[], todo: ReadonlySet<Contact>): Contact[][] {
  const groups = new Map<string, Contact[]>();
  for (const contact of contacts) {
    const { email, domain } = contact.person;
    const key = email ? email.slice(email.lastIndexOf('@') + 1) : domain;
    groups.set(key, [...(groups.get(key) ?? []), contact]);
  }
  return [...groups.values()].filter((group) => group.some((contact) => todo.has(contact)));
}

const priceOf = ({ settings }: RunContext, question: Question & { finder: string }): number =>
  question.kind === 'purchase'
    ? question.priceCents
    : (settings.finders.find(({ id }) => id === question.finder)?.priceCents ?? 0);

/** Keeps what may still be charged under the budget: a contact's price is set apart before a finder is asked. */
function budgetOf({ db, jobId }: RunContext) {
  const limit = jobRow(db, jobId)!.budgetCents;
  const reserved = new Map<number, number>();
  let short = false;
  return {
    reserve(contact: number, cents: number): boolean {
      const others = [...reserved].reduce((sum, [id, kept]) => (id === contact ? sum : sum + kept), 0);
      const want = Math.max(cents, reserved.get(contact) ?? 0);
      if (spentCents(db, jobId) + others + want > limit) {
        short = true;
        return false;
      }
      reserved.set(contact, want);
      return true;
    },
    release: (contact: number) => reserved.delete(contact),
    ended: () => short,
  };
}

function closing(asked: number, left: number, budgetEnded: boolean, down: Map<string, string>): string {
  const parts = [`${(asked - left).toLocaleString('en')} of ${asked.toLocaleString('en')} settled`];
  if (budgetEnded) parts.push('the budget is used up: raise it to go on');
  for (const [finder, reason] of down) parts.push(`${finder}: ${reason}; what waits for it can be asked later`);
  return parts.join(' · ');
}
