import * as z from 'zod';
import { noReply, OF_MAIL_SERVER, VERIFIED, type FactKind } from './fact-kind';

/**
 * What the mail server said to RCPT, or a verifier in its place; `code` is the SMTP reply code, 0 when there was none. `no-server`: none of the domain's mail
 * servers has an address on the public net, so nobody can deliver there.
 */
const answer = z.object({
  state: z.enum(['accepted', 'no-mailbox', 'full', 'refused-us', 'no-server', 'try-later', 'no-answer']),
  code: z.int(),
  ...VERIFIED,
  /** Whether the domain takes mail for anybody, where whoever answered says so. */
  takesAny: z.boolean().optional(),
});

export const mailbox: FactKind<{ email: string }, z.infer<typeof answer>> = {
  ...OF_MAIL_SERVER,
  answer,
  key: ({ email }) => email,
  silence: noReply,
};
