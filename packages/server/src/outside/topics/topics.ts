import { topicRecordAnswer, type AnswerOf, type QuestionOf } from '@sieve/core';
import type { FinderSetting } from '@sieve/contract';
import * as z from 'zod';
import { callService } from '../wrap/call-service';
import { readAs } from '../wrap/read-as';
import { ServiceDown } from '../wrap/service-down';

const offered = z.object({ record: z.string().min(1).max(200).nullable(), price_cents: z.int().min(0) });

/** Whether people of a company were seen reading about something this week, and what that costs; free. */
export async function topicsOffered(
  service: FinderSetting,
  { domain }: QuestionOf<'topic-offer'>,
  signal: AbortSignal,
): Promise<AnswerOf<'topic-offer'>> {
  const answer = await callService(
    service,
    'GET',
    `/v1/weeks/current/${encodeURIComponent(domain)}`,
    undefined,
    signal,
  );
  const { record, price_cents: priceCents } = readAs(offered, service, answer);
  if (priceCents > service.priceCents) throw new ServiceDown(service.id, 'it asks more than the price in the settings');
  return { record, priceCents };
}

/** Buys what they read about; the same record again is bought once. */
export async function buyTopics(
  service: FinderSetting,
  { record }: QuestionOf<'topic-record'>,
  signal: AbortSignal,
): Promise<AnswerOf<'topic-record'>> {
  const path = `/v1/purchases/${encodeURIComponent(record)}`;
  return readAs(topicRecordAnswer, service, await callService(service, 'PUT', path, undefined, signal));
}
