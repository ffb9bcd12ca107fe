import type { AnswerOf } from '@sieve/core';
import type { FinderSetting } from '@sieve/contract';
import * as z from 'zod';
import { sleep } from '../wrap/pace';
import { retryAfterMs } from '../wrap/retry-after';
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
  const body = JSON.stringify({ first_name: firstName, last_name: lastName, domain });
  const found = answer.safeParse(await call(finder, 'POST', '/v1/lookups', body, signal));
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
  await call(finder, 'PUT', `/v1/purchases/${encodeURIComponent(lookup)}`, undefined, signal);
  return { bought: true };
}

const TRIES = 4;

/** Both calls may be repeated: a lookup changes nothing and a purchase is idempotent. Honours Retry-After. */
async function call(
  finder: FinderSetting,
  method: string,
  path: string,
  body: string | undefined,
  signal: AbortSignal,
): Promise<unknown> {
  let reason = 'it did not answer';
  for (let attempt = 1; attempt <= TRIES; attempt++) {
    let waitMs = 250 * 2 ** attempt;
    try {
      const response = await fetch(finder.url.replace(/\/$/, '') + path, {
        method,
        headers: { authorization: `Bearer ${finder.key}`, ...(body && { 'content-type': 'application/json' }) },
        ...(body && { body }),
        // Where it leads to is not where the settings sent it.
        redirect: 'manual',
        signal: AbortSignal.any([signal, AbortSignal.timeout(10_000)]),
      });
      if (response.ok) return await response.json();
      if (response.status === 401 || response.status === 403)
        throw new ServiceDown(finder.id, 'it does not accept the key');
      if (response.status < 500 && response.status !== 429)
        throw new ServiceDown(finder.id, `it answered ${response.status}`);
      reason = `it answered ${response.status}`;
      waitMs = retryAfterMs(response.headers, waitMs, Date.now());
    } catch (error) {
      if (error instanceof ServiceDown) throw error;
      signal.throwIfAborted();
    }
    if (attempt < TRIES) await sleep(waitMs, signal);
  }
  throw new ServiceDown(finder.id, reason);
}
