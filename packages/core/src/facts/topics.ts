import * as z from 'zod';
import type { FactKind } from './fact-kind';
import { BOUGHT, OFFER_OF_DOMAIN, type Offer } from './offer';

const WEEK_MS = 7 * 86_400_000;

/** Whether a service saw people of a company read about something this week; null when nobody did. Free; holds for a week. */
export const topicOffer: FactKind<{ service: string; domain: string }, Offer> = {
  ...OFFER_OF_DOMAIN,
  freshForMs: WEEK_MS,
};

export const topicRecordAnswer = z.object({ topics: z.array(z.string()) });

/** What the people of a company read about in a week, bought once. */
export const topicRecord: FactKind<
  { service: string; record: string; priceCents: number },
  z.infer<typeof topicRecordAnswer>
> = {
  ...BOUGHT,
  answer: topicRecordAnswer,
};
