import type { AnswerOf } from '@sieve/core';
import type { FinderSetting } from '@sieve/contract';
import * as z from 'zod';
import { callService } from '../wrap/call-service';
import { readAs } from '../wrap/read-as';
import { ServiceDown } from '../wrap/service-down';

const answer = z.object({
  lookup: z.string().min(1).max(200),
  email: z.email().nullable(),
  price_cents: z.int().min(0),
  /** Taken of a plan, in place of the price. */
  credits: z.int().min(0).default(0),
});
const receipt = z.object({ price_cents: z.int().min(0).optional(), credits: z.int().min(0).default(0) });

export interface Person {
  firstName: string;
  lastName: string;
  domain: string;
}

/**
 * Asks a finder for the address of a person. Of one that charges for what verifies, looking is free; `buyAddress` costs.
 *
 * @param as names the question, see `callService`
 */
export async function findAddress(
  finder: FinderSetting,
  { firstName, lastName, domain }: Person,
  as: string,
  signal: AbortSignal,
): Promise<AnswerOf<'finder'>> {
  const body = { first_name: firstName, last_name: lastName, domain };
  const {
    lookup,
    email,
    price_cents: priceCents,
    credits,
  } = readAs(answer, finder, await callService(finder, 'POST', '/v1/lookups', body, signal, { as }));
  if (priceCents > finder.priceCents) throw new ServiceDown(finder.id, 'it asks more than the price in the settings');
  return {
    lookup,
    email: email?.toLowerCase() ?? null,
    priceCents,
    pays: finder.pays,
    ...(credits > 0 && { credits }),
  };
}

const ownerAnswer = z.object({
  person: z
    .object({
      first_name: z.string().max(200),
      last_name: z.string().max(200),
      title: z.string().max(300).default(''),
      company: z.string().max(300).default(''),
    })
    .nullable(),
  price_cents: z.int().min(0),
  credits: z.int().min(0).default(0),
});

/**
 * Asks a finder who has an address.
 *
 * @param as names the question, see `callService`
 */
export async function ownerOf(
  finder: FinderSetting,
  email: string,
  as: string,
  signal: AbortSignal,
): Promise<AnswerOf<'owner'>> {
  const {
    person,
    price_cents: priceCents,
    credits,
  } = readAs(ownerAnswer, finder, await callService(finder, 'POST', '/v1/people', { email }, signal, { as }));
  if (priceCents > finder.priceCents) throw new ServiceDown(finder.id, 'it asks more than the price in the settings');
  return {
    person: person && {
      firstName: person.first_name,
      lastName: person.last_name,
      title: person.title,
      company: person.company,
    },
    priceCents,
    pays: finder.pays,
    ...(credits > 0 && { credits }),
  };
}

/** Buys an address that verified. Asking twice for the same lookup buys once: the lookup is its own idempotency key. */
export async function buyAddress(
  finder: FinderSetting,
  lookup: string,
  signal: AbortSignal,
): Promise<AnswerOf<'purchase'>> {
  const path = `/v1/purchases/${encodeURIComponent(lookup)}`;
  const { price_cents: cents, credits } = readAs(
    receipt,
    finder,
    await callService(finder, 'PUT', path, undefined, signal),
  );
  return { bought: true, ...(cents !== undefined && { cents }), ...(credits > 0 && { credits }) };
}
