/**
 * Something that only an outside service can answer. Its key is the same for the same question, whoever asks,
 * so that an answer is kept once for all jobs and nothing is bought twice.
 */
export type Question =
  | { kind: 'mail-host'; domain: string }
  | { kind: 'mailbox'; email: string }
  | { kind: 'catch-all'; domain: string }
  | { kind: 'finder'; finder: string; firstName: string; lastName: string; domain: string }
  | { kind: 'purchase'; finder: string; lookup: string; priceCents: number };

export type QuestionKind = Question['kind'];

/** Where mail for a domain goes. `none`: the domain exists but takes no mail; `no-domain`: it does not exist. */
export type MailHostAnswer =
  { state: 'hosts'; hosts: string[] } | { state: 'none' } | { state: 'no-domain' } | { state: 'failed' };

/** What the mail server said to RCPT. */
export interface MailboxAnswer {
  state: 'accepted' | 'no-mailbox' | 'full' | 'refused-us' | 'try-later' | 'no-answer';
  /** SMTP reply code, 0 when there was none. */
  code: number;
}

export interface CatchAllAnswer {
  state: 'catch-all' | 'selective' | 'unclear';
}

export interface FinderAnswer {
  email: string | null;
  lookup: string;
  priceCents: number;
}

export interface PurchaseAnswer {
  bought: true;
}

export interface AnswerOf {
  'mail-host': MailHostAnswer;
  mailbox: MailboxAnswer;
  'catch-all': CatchAllAnswer;
  finder: FinderAnswer;
  purchase: PurchaseAnswer;
}

/** An answer and when it was given (ms since 1970). */
export interface Fact<K extends QuestionKind = QuestionKind> {
  answer: AnswerOf[K];
  askedAt: number;
}

/** Everything that has been answered so far. */
export type Facts = <Q extends Question>(question: Q) => Fact<Q['kind']> | undefined;

/** The identity of a question: equal keys are the same question. */
export function questionKey(q: Question): string {
  switch (q.kind) {
    case 'mail-host':
    case 'catch-all':
      return q.domain;
    case 'mailbox':
      return q.email;
    case 'finder':
      return JSON.stringify([q.firstName.toLowerCase(), q.lastName.toLowerCase(), q.domain]);
    case 'purchase':
      return q.lookup;
  }
}

/** Who answers: the finder asked, or the mail system itself. */
export const answeredBy = (q: Question): string => ('finder' in q ? q.finder : 'mail');
