import type { ServiceSetting } from '@sieve/contract';
import * as z from 'zod';
import { callService } from './call-service';
import { readAs } from './read-as';
import { ServiceDown } from './service-down';

const offered = z.object({ record: z.string().min(1).max(200).nullable(), price_cents: z.int().min(0) });

/** What a service offers at a path, and for how much; free. Null when it knows nothing. Throws ServiceDown. */
export async function offerAt(
  service: ServiceSetting,
  path: string,
  signal: AbortSignal,
): Promise<{ record: string | null; priceCents: number }> {
  const answer = await callService(service, 'GET', path, undefined, signal);
  const { record, price_cents: priceCents } = readAs(offered, service, answer);
  if (priceCents > service.priceCents) throw new ServiceDown(service.id, 'it asks more than the price in the settings');
  return { record, priceCents };
}

/** Buys a record that was offered; the same record again is bought once. Throws ServiceDown. */
export async function buyRecordAs<T>(
  schema: z.ZodType<T>,
  service: ServiceSetting,
  record: string,
  signal: AbortSignal,
): Promise<T> {
  const path = `/v1/purchases/${encodeURIComponent(record)}`;
  return readAs(schema, service, await callService(service, 'PUT', path, undefined, signal));
}
