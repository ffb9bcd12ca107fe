import * as z from 'zod';

export const verifyOptions = z.object({
  /** Days after which what is known of a mailbox is asked again. Common practice, no source: 90. */
  freshDays: z.int().min(1).max(3650).default(90),
});
export type VerifyOptions = z.output<typeof verifyOptions>;
