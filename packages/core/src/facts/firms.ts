import * as z from 'zod';
import { fold } from '../text/fold';
import { FREE, OF_SERVICE, type FactKind } from './fact-kind';
import { BOUGHT, OFFER_OF_DOMAIN, type Offer } from './offer';

export const firmCandidate = z.object({ name: z.string(), domain: z.string(), city: z.string(), country: z.string() });
export type FirmCandidate = z.infer<typeof firmCandidate>;
const candidates = z.object({ firms: z.array(firmCandidate) });

/** Stands for the directory where a service is asked which companies it knows. */
export const DIRECTORY = 'directory';

/** Which companies a service knows by a name, the nearest place first; for nothing. */
export const firmSearch: FactKind<
  { service: string; name: string; city: string; country: string },
  z.infer<typeof candidates>
> = {
  ...OF_SERVICE,
  ...FREE,
  answer: candidates,
  key: ({ name, city, country }) => JSON.stringify([fold(name), fold(city), country]),
};

/** What a service offers of a company; null when it knows nothing. Buying it is a question of its own. */
export const firmOffer: FactKind<{ service: string; domain: string }, Offer> = OFFER_OF_DOMAIN;

/** What a service knows of a company; '' and null for what it does not. */
export const firmRecordAnswer = z.object({
  sector: z.string(),
  headcount: z.int().nullable(),
  /** People more than a year ago, in per cent. */
  growth: z.number().nullable(),
  city: z.string(),
  region: z.string(),
  country: z.string(),
  technology: z.array(z.string()),
  hiring: z.array(z.string()),
});
export type FirmRecord = z.infer<typeof firmRecordAnswer>;

/** What is known of a company, bought once. */
export const firmRecord: FactKind<{ service: string; record: string; priceCents: number }, FirmRecord> = {
  ...BOUGHT,
  answer: firmRecordAnswer,
};
