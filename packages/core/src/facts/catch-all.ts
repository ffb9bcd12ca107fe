import * as z from 'zod';
import { noReply, OF_MAIL, type FactKind } from './fact-kind';

/** Whether a domain takes mail for anybody. `unclear`: its server answered, but not about the mailbox. */
const answer = z.object({ state: z.enum(['catch-all', 'selective', 'unclear', 'try-later', 'no-answer']) });

export const catchAll: FactKind<{ domain: string }, z.infer<typeof answer>> = {
  ...OF_MAIL,
  answer,
  key: ({ domain }) => domain,
  silence: noReply,
};
