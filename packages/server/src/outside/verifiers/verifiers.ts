import type { AnswerOf } from '@sieve/core';
import type { ServiceSetting } from '@sieve/contract';
import * as z from 'zod';
import { callService } from '../wrap/call-service';
import { readAs } from '../wrap/read-as';
import { ServiceDown } from '../wrap/service-down';

const answer = z.object({
  mailbox: z.enum(['open', 'none', 'full', 'unsure']),
  /** Whether the domain takes mail for anybody; null when that is not known. */
  takes_any: z.boolean().nullable(),
  price_cents: z.int().min(0),
});

const STATES = { open: 'accepted', none: 'no-mailbox', full: 'full', unsure: 'no-answer' } as const;

/**
 * Asks a verifier whether an address takes mail. One that cannot say is not paid.
 *
 * @param as names the question, see `callService`
 */
export async function verifyAddress(
  verifier: ServiceSetting,
  email: string,
  as: string,
  signal: AbortSignal,
): Promise<AnswerOf<'mailbox'>> {
  const {
    mailbox,
    takes_any: takesAny,
    price_cents: priceCents,
  } = readAs(answer, verifier, await callService(verifier, 'POST', '/v1/addresses', { email }, signal, { as }));
  if (priceCents > verifier.priceCents)
    throw new ServiceDown(verifier.id, 'it asks more than the price in the settings');
  const state = STATES[mailbox];
  return {
    state,
    code: 0,
    by: verifier.id,
    cents: state === 'no-answer' ? 0 : priceCents,
    ...(takesAny !== null && { takesAny }),
  };
}
