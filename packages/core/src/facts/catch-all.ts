import * as z from 'zod';
import { noReply, OF_MAIL_SERVER, VERIFIED, type FactKind } from './fact-kind';

/** Whether a domain takes mail for anybody. `unclear`: its server answered, but not about the mailbox. */
const answer = z.object({
  state: z.enum(['catch-all', 'selective', 'unclear', 'try-later', 'no-answer']),
  ...VERIFIED,
});

export const catchAll: FactKind<{ domain: string }, z.infer<typeof answer>> = {
  ...OF_MAIL_SERVER,
  answer,
  key: ({ domain }) => domain,
  silence: noReply,
};
