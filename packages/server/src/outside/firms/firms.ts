import { firmCandidate, firmRecordAnswer, type AnswerOf, type QuestionOf } from '@sieve/core';
import type { FinderSetting } from '@sieve/contract';
import * as z from 'zod';
import { callService } from '../wrap/call-service';
import { readAs } from '../wrap/read-as';
import { ServiceDown } from '../wrap/service-down';

type Service = FinderSetting;

const found = z.object({ companies: z.array(firmCandidate) });
const offered = z.object({ record: z.string().min(1).max(200).nullable(), price_cents: z.int().min(0) });

/** The companies that a service knows by a name; free. */
export async function searchFirms(
  service: Service,
  { name, city, country }: QuestionOf<'firm-search'>,
  signal: AbortSignal,
): Promise<AnswerOf<'firm-search'>> {
  const query = new URLSearchParams({ name, city, country });
  const answer = await callService(service, 'GET', `/v1/companies?${query}`, undefined, signal);
  return { firms: readAs(found, service, answer).companies };
}

/** What a service offers of a company, and for how much; free. */
export async function offerOf(
  service: Service,
  { domain }: QuestionOf<'firm-offer'>,
  signal: AbortSignal,
): Promise<AnswerOf<'firm-offer'>> {
  const answer = await callService(service, 'GET', `/v1/companies/${encodeURIComponent(domain)}`, undefined, signal);
  const { record, price_cents: priceCents } = readAs(offered, service, answer);
  if (priceCents > service.priceCents) throw new ServiceDown(service.id, 'it asks more than the price in the settings');
  return { record, priceCents };
}

/** Buys what a service knows of a company; the same record again is bought once. */
export async function buyRecord(
  service: Service,
  { record }: QuestionOf<'firm-record'>,
  signal: AbortSignal,
): Promise<AnswerOf<'firm-record'>> {
  const path = `/v1/purchases/${encodeURIComponent(record)}`;
  return readAs(firmRecordAnswer, service, await callService(service, 'PUT', path, undefined, signal));
}
