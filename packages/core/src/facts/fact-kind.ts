import * as z from 'zod';

/**
 * A kind of question that only an outside service can answer. One object a kind, listed in the registry; whoever answers
 * stands in the server.
 *
 * @typeParam Q what identifies the question, without its kind
 * @typeParam A the answer
 */
export interface FactKind<Q, A> {
  answer: z.ZodType<A>;
  /** The identity of a question: equal keys are the same question, whoever asks, so an answer is kept once for all jobs. */
  key: (question: Q) => string;
  /** Who answers: a finder's id, or 'mail' for the mail system itself. */
  who: (question: Q) => string;
  /** An answer is fresh for a time, which a job sets; others stay true. */
  ages: boolean;
  /** At most so long, whatever a job sets, in ms. */
  freshForMs?: number;
  /** Whether an answer says that nothing is there; that may be asked again after a time which a job sets. */
  isNone?: (answer: A) => boolean;
  /** Its answers are bought: each once, and never again. */
  paid: boolean;
  /** What the answer costs, in cents; 0 where asking is free. */
  priceCents: (question: Q) => number;
  /** What it costs by what was answered, where that decides. */
  charged?: (question: Q, answer: A) => number;
  /** What it takes of the credits of a plan, in place of money. */
  credits?: (answer: A) => number;
  /** Who is paid for an answer, where that is not who answers. */
  seller?: (answer: A) => string;
  /** Why an answer says nothing (nobody was there, "try later"); null when it says something. It is never taken for a no. */
  silence: (answer: A) => string | null;
}

/** What the facts that the mail system itself gives have in common. */
export const OF_MAIL = { who: () => 'mail', ages: true, paid: false, priceCents: () => 0 };

/** What a verifier's answer, in place of a mail server's, says besides: who gave it, and what it cost. */
export const VERIFIED = { by: z.string().optional(), cents: z.int().min(0).optional() };

/** What the facts have in common that a mail server gives, or a verifier in its place. */
export const OF_MAIL_SERVER = {
  ...OF_MAIL,
  charged: (_: unknown, { cents = 0 }: { cents?: number }): number => cents,
  seller: ({ by }: { by?: string }): string => by ?? 'mail',
};

/** What asking for nothing has in common. */
export const FREE = { ages: true, paid: false, priceCents: () => 0 };

/** What the facts of a service that sells have in common. */
export const OF_SERVICE = { who: ({ service }: { service: string }) => service, silence: () => null };

/** The silence of a mail server that did not answer, or only for now. */
export const noReply = ({ state }: { state: string }): string | null =>
  state === 'try-later' || state === 'no-answer' ? state : null;
