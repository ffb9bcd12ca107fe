import * as z from 'zod';
import { MAIL_FRESH_MS, type FactKind } from './fact-kind';

/** What the mail server said to RCPT; `code` is the SMTP reply code, 0 when there was none. */
const answer = z.object({
  state: z.enum(['accepted', 'no-mailbox', 'full', 'refused-us', 'try-later', 'no-answer']),
  code: z.int(),
});

export const mailbox: FactKind<{ email: string }, z.infer<typeof answer>> = {
  answer,
  key: ({ email }) => email,
  who: () => 'mail',
  freshMs: MAIL_FRESH_MS,
  paid: false,
  priceCents: () => 0,
  silence: ({ state }) => (state === 'try-later' || state === 'no-answer' ? state : null),
};
