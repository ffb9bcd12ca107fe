import type { Freshness } from '../facts/facts';
import { appendEmailOptions } from '../steps/append-email/options';
import { appendPhoneOptions } from '../steps/append-phone/options';
import { stepIn, type Sieve } from '../steps/sieve';
import { verifyOptions } from '../steps/verify/options';

const DAY_MS = 86_400_000;
const orNever = (days: number): number => (days === 0 ? Infinity : days * DAY_MS);

/** How long answers are fresh in a job. */
export function freshnessOf(sieve: Sieve): Freshness {
  const { freshDays } = stepIn(sieve, { kind: 'verify', options: verifyOptions }).options;
  const finder = stepIn(sieve, { kind: 'append-email', options: appendEmailOptions }).options.againDays;
  const phones = stepIn(sieve, { kind: 'append-phone', options: appendPhoneOptions }).options.againDays;
  return { agesMs: freshDays * DAY_MS, noneMs: { finder: orNever(finder), phones: orNever(phones) } };
}
