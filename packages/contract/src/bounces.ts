import * as z from 'zod';
import { count } from './model';

/** A list of bounced addresses with or without codes, or delivery status notifications. */
export const newBounces = z.object({ text: z.string().min(1).max(8_000_000) });

/** What bounces told: addresses without a mailbox, full ones, ones that say nothing, lines that were not understood, domains that accept and send back. */
export const bouncesTold = z.object({
  invalid: count,
  full: count,
  refused: count,
  unread: count,
  domains: z.array(z.string()),
});
export type BouncesTold = z.output<typeof bouncesTold>;
