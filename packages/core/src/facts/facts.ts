import type * as z from 'zod';
import { bounces } from './bounces';
import { catchAll } from './catch-all';
import type { FactKind } from './fact-kind';
import { finder } from './finder';
import { firmOffer, firmRecord, firmSearch } from './firms';
import { mailHost } from './mail-host';
import { mailbox } from './mailbox';
import { owner } from './owner';
import { phones } from './phones';
import { profiles } from './profiles';
import { purchase } from './purchase';
import { siteQuestion } from './site-question';
import { topicOffer, topicRecord } from './topics';
import { website } from './website';

/** Every kind of question there is. */
export const FACT_KINDS = {
  'mail-host': mailHost,
  mailbox,
  bounces,
  'catch-all': catchAll,
  finder,
  purchase,
  owner,
  phones,
  profiles,
  website,
  'firm-search': firmSearch,
  'firm-offer': firmOffer,
  'firm-record': firmRecord,
  'topic-offer': topicOffer,
  'topic-record': topicRecord,
  'site-question': siteQuestion,
};

type Kinds = typeof FACT_KINDS;
export type QuestionKind = keyof Kinds;
export type QuestionOf<K extends QuestionKind> = { kind: K } & Parameters<Kinds[K]['key']>[0];
export type Question = { [K in QuestionKind]: QuestionOf<K> }[QuestionKind];
export type AnswerOf<K extends QuestionKind> = { [P in K]: z.infer<Kinds[P]['answer']> }[K];
export type Answer = AnswerOf<QuestionKind>;

/** An answer and when it was given (ms since 1970). Facts are appended, never changed. */
export interface Fact<K extends QuestionKind = QuestionKind> {
  answer: AnswerOf<K>;
  askedAt: number;
}

/** What has to be asked next. */
export interface Wanted<K extends QuestionKind = QuestionKind> {
  ask: Question;
  /** Why the last answer said nothing; null when there was none. */
  silent: string | null;
  /** What was answered before and is no longer fresh. */
  stale: Fact<K> | null;
}

/** What has to be asked next, without the rest of what is known of the question. */
export const wantedOf = ({ ask, silent, stale }: Wanted): Wanted => ({ ask, silent, stale });

/** The fact that counts, or that there is none. */
export type Known<K extends QuestionKind = QuestionKind> = { fact: Fact<K> } | ({ fact: null } & Wanted<K>);

/** What has to be asked first of some questions; null when all are answered. */
export function firstWanted(known: readonly Known[]): Wanted | null {
  const one = known.find(({ fact }) => fact === null);
  return one && one.fact === null ? wantedOf(one) : null;
}

/** Everything that has been answered so far, read at one moment. */
export type Facts = <Q extends Question>(question: Q) => Known<Q['kind']>;

const kindOf = (kind: QuestionKind) => FACT_KINDS[kind] as unknown as FactKind<Question, Answer>;

export const questionKey = (question: Question): string => kindOf(question.kind).key(question);
export const answeredBy = (question: Question): string => kindOf(question.kind).who(question);
export const priceOf = (question: Question): number => kindOf(question.kind).priceCents(question);
/** Who is paid for an answer. */
export const soldBy = (question: Question, answer: Answer): string =>
  kindOf(question.kind).seller?.(answer) ?? answeredBy(question);
/** Whether an answer says something. */
export const says = ({ kind }: Question, answer: Answer): boolean => kindOf(kind).silence(answer) === null;
/** What an answer costs, in cents. */
export const chargeOf = (question: Question, answer: Answer): number =>
  kindOf(question.kind).charged?.(question, answer) ?? priceOf(question);
/** What an answer takes of the credits of a plan. */
export const creditsOf = ({ kind }: Question, answer: Answer): number => kindOf(kind).credits?.(answer) ?? 0;
/** Its answers are bought, each once. */
export const isPaid = (question: Question): boolean => kindOf(question.kind).paid;
/** How long answers are fresh in a job, in ms; Infinity: for ever. */
export interface Freshness {
  /** Those that age. */
  agesMs: number;
  /** Those that say that nothing is there. */
  noneMs: Record<'finder' | 'phones', number>;
}
/** Whatever was answered counts. */
export const ANY_AGE: Freshness = { agesMs: Infinity, noneMs: { finder: Infinity, phones: Infinity } };

/** When a fact is no longer fresh, in ms since 1970; Infinity: never. */
export function staleAt({ kind }: Question, { answer, askedAt }: Fact, { agesMs, noneMs }: Freshness): number {
  const { ages, freshForMs = Infinity, isNone } = kindOf(kind);
  if (ages) return askedAt + Math.min(agesMs, freshForMs);
  return isNone?.(answer) ? askedAt + noneMs[kind === 'phones' ? 'phones' : 'finder'] : Infinity;
}

/**
 * Of the answers to a question, newest first, the one that counts at a time: the newest that is fresh and says something.
 *
 * @param now ms since 1970
 */
export function known(ask: Question, newestFirst: Iterable<Fact>, now: number, freshness: Freshness): Known {
  const { silence } = kindOf(ask.kind);
  let silent: string | null = null;
  for (const fact of newestFirst) {
    const why = silence(fact.answer);
    if (why === null) {
      return now <= staleAt(ask, fact, freshness) ? { fact } : { fact: null, ask, silent, stale: fact };
    }
    silent ??= why;
  }
  return { fact: null, ask, silent, stale: null };
}

/** The facts at any age: what was found once stays found. */
export const atAnyAge =
  (facts: Facts): Facts =>
  (question) => {
    const found = facts(question);
    return !found.fact && found.stale ? { fact: found.stale } : found;
  };
