import type { AnswerOf } from '@sieve/core';
import type { FinderSetting } from '@sieve/contract';
import * as z from 'zod';
import { callService } from '../wrap/call-service';
import { ServiceDown } from '../wrap/service-down';

const answer = z.object({
  lookup: z.string().min(1).max(200),
  email: z.email().nullable(),
  price_cents: z.int().min(0),
});

export interface Person {
  firstName: string;
  lastName: string;
  domain: string;
}

/** Asks a finder for the address of a person. Looking is free; only `buyAddress` costs. */
export async function findAddress(
  finder: FinderSetting,
  { firstName, lastName, domain }: Person,
  signal: AbortSignal,
): Promise<AnswerOf<'finder'>> {
  const body = { first_name: firstName, last_name: lastName, domain };
  const found = answer.safeParse(await callService(finder, 'POST', '/v1/lookups', body, signal));
  if (!found.success) throw new ServiceDown(finder.id, 'its answer could not be read');
  const { lookup, email, price_cents: priceCents } = found.data;
  if (priceCents > finder.priceCents) throw new ServiceDown(finder.id, 'it asks more than the price in the settings');
  return { lookup, email: email?.toLowerCase() ?? null, priceCents };
}

/** Buys an address that verified. Asking twice for the same lookup buys once: the lookup is its own idempotency key. */
export async function buyAddress(
  finder: FinderSetting,
  lookup: string,
  signal: AbortSignal,
): Promise<AnswerOf<'purchase'>> {
  await callService(finder, 'PUT', `/v1/purchases/${encodeURIComponent(lookup)}`, undefined, signal);
  return { bought: true };
}
