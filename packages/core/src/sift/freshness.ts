import { stepIn, type Sieve } from '../steps/sieve';
import { verifyOptions } from '../steps/verify/options';

const DAY_MS = 86_400_000;

/** How long what is known of a mailbox is fresh in a job, in ms. */
export const freshMs = (sieve: Sieve): number =>
  stepIn(sieve, { kind: 'verify', options: verifyOptions }).options.freshDays * DAY_MS;
