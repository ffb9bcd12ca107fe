import type { AnswerOf, PhoneQuestion } from '@sieve/core';
import type { PhoneServiceSetting } from '@sieve/contract';
import * as z from 'zod';
import { callService } from '../wrap/call-service';
import { readAs } from '../wrap/read-as';
import { ServiceDown } from '../wrap/service-down';

const answer = z.object({
  price_cents: z.int().min(0),
  phones: z
    .array(
      z.object({
        number: z.string().min(1).max(60),
        first_name: z.string().max(200),
        last_name: z.string().max(200),
        kind: z.enum(['mobile', 'direct', 'switchboard']).nullable().default(null),
      }),
    )
    .max(20),
});

/**
 * Asks a service for the phones listed at an address: of a person, or, without a first name, of whoever is called so there.
 *
 * @param as names the question, see `callService`
 */
export async function listedPhones(
  service: PhoneServiceSetting,
  { firstName, lastName, address }: PhoneQuestion,
  as: string,
  signal: AbortSignal,
): Promise<AnswerOf<'phones'>> {
  const body = { ...(firstName && { first_name: firstName }), last_name: lastName, address };
  const { phones, price_cents: priceCents } = readAs(
    answer,
    service,
    await callService(service, 'POST', '/v1/phones', body, signal, { as }),
  );
  if (priceCents > service.priceCents) throw new ServiceDown(service.id, 'it asks more than the price in the settings');
  return {
    phones: phones.map(({ number, first_name, last_name, kind }) => ({
      number,
      firstName: first_name,
      lastName: last_name,
      kind,
    })),
    priceCents,
    pays: service.pays,
  };
}
