import { firmCandidate, firmRecordAnswer, type AnswerOf, type QuestionOf } from '@sieve/core';
import type { ServiceSetting } from '@sieve/contract';
import * as z from 'zod';
import { callService } from '../wrap/call-service';
import { readAs } from '../wrap/read-as';
import { buyRecordAs, offerAt } from '../wrap/records';

const found = z.object({ companies: z.array(firmCandidate) });

/** The companies that a service knows by a name; free. */
export async function searchFirms(
  service: ServiceSetting,
  { name, city, country }: QuestionOf<'firm-search'>,
  signal: AbortSignal,
): Promise<AnswerOf<'firm-search'>> {
  const query = new URLSearchParams({ name, city, country });
  const answer = await callService(service, 'GET', `/v1/companies?${query}`, undefined, signal);
  return { firms: readAs(found, service, answer).companies };
}

/** What a service offers of a company, and for how much; free. */
export const offerOf = (
  service: ServiceSetting,
  { domain }: QuestionOf<'firm-offer'>,
  signal: AbortSignal,
): Promise<AnswerOf<'firm-offer'>> => offerAt(service, `/v1/companies/${encodeURIComponent(domain)}`, signal);

/** Buys what a service knows of a company. */
export const buyRecord = (
  service: ServiceSetting,
  { record }: QuestionOf<'firm-record'>,
  signal: AbortSignal,
): Promise<AnswerOf<'firm-record'>> => buyRecordAs(firmRecordAnswer, service, record, signal);
