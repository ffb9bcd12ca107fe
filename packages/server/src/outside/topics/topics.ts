import { topicRecordAnswer, type AnswerOf, type QuestionOf } from '@sieve/core';
import type { ServiceSetting } from '@sieve/contract';
import { buyRecordAs, offerAt } from '../wrap/records';

/** Whether people of a company were seen reading about something this week, and what that costs; free. */
export const topicsOffered = (
  service: ServiceSetting,
  { domain }: QuestionOf<'topic-offer'>,
  signal: AbortSignal,
): Promise<AnswerOf<'topic-offer'>> => offerAt(service, `/v1/weeks/current/${encodeURIComponent(domain)}`, signal);

/** Buys what they read about. */
export const buyTopics = (
  service: ServiceSetting,
  { record }: QuestionOf<'topic-record'>,
  signal: AbortSignal,
): Promise<AnswerOf<'topic-record'>> => buyRecordAs(topicRecordAnswer, service, record, signal);
