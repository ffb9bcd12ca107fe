import * as z from 'zod';
import { FREE, OF_SERVICE } from './fact-kind';

const offer = z.object({ record: z.string().nullable(), priceCents: z.int().min(0) });
export type Offer = z.infer<typeof offer>;

/** What a service offers of a domain, for nothing; no record where it knows nothing. Buying it is a question of its own. */
export const OFFER_OF_DOMAIN = {
  ...OF_SERVICE,
  ...FREE,
  answer: offer,
  key: ({ domain }: { domain: string }) => domain,
};

/** What an offered record costs is what was offered; it is bought once. */
export const BOUGHT = {
  ...OF_SERVICE,
  key: ({ record }: { record: string }) => record,
  ages: false,
  paid: true,
  priceCents: ({ priceCents }: { priceCents: number }) => priceCents,
};
