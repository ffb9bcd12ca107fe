import * as z from 'zod';
import { OF_SERVICE, type FactKind } from './fact-kind';

const WEEK_MS = 7 * 86_400_000;

const offer = z.object({ record: z.string().nullable(), priceCents: z.int().min(0) });

/** Whether a service saw people of a company read about something this week; null when nobody did. Free; holds for a week. */
export const topicOffer: FactKind<{ service: string; domain: string }, z.infer<typeof offer>> = {
  ...OF_SERVICE,
  answer: offer,
  key: ({ domain }) => domain,
  ages: true,
  freshForMs: WEEK_MS,
  paid: false,
  priceCents: () => 0,
};

export const topicRecordAnswer = z.object({ topics: z.array(z.string()) });

/** What the people of a company read about in a week, bought once. */
export const topicRecord: FactKind<
  { service: string; record: string; priceCents: number },
  z.infer<typeof topicRecordAnswer>
> = {
  ...OF_SERVICE,
  answer: topicRecordAnswer,
  key: ({ record }) => record,
  ages: false,
  paid: true,
  priceCents: ({ priceCents }) => priceCents,
};
