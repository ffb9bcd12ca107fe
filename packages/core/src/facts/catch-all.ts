import * as z from 'zod';
import { MAIL_FRESH_MS, type FactKind } from './fact-kind';

/** Whether a domain takes mail for anybody. `unclear`: its server answered, but not about the mailbox. */
const answer = z.object({ state: z.enum(['catch-all', 'selective', 'unclear', 'try-later', 'no-answer']) });

export const catchAll: FactKind<{ domain: string }, z.infer<typeof answer>> = {
  answer,
  key: ({ domain }) => domain,
  who: () => 'mail',
  freshMs: MAIL_FRESH_MS,
  paid: false,
  priceCents: () => 0,
  silence: ({ state }) => (state === 'try-later' || state === 'no-answer' ? state : null),
};
