import * as z from 'zod';
import type { FactKind } from './fact-kind';

/** One person as the directory shows them; '' for what it does not say. */
export const listed = z.object({
  name: z.string(),
  title: z.string(),
  company: z.string(),
  /** Companies of earlier. */
  past: z.array(z.string()),
  city: z.string(),
  region: z.string(),
  country: z.string(),
  website: z.string(),
  link: z.string(),
});
export type Listed = z.infer<typeof listed>;

const answer = z.object({
  /** How many there are; those beyond the first page are not in `people`. */
  total: z.int().min(0),
  people: z.array(listed),
});

/** Who a directory lists under one of some names. The other parts narrow it; '' asks for all. */
export interface ProfilesQuestion {
  names: readonly string[];
  company: string;
  city: string;
  /** ISO 3166. */
  country: string;
  /** ISO 639-1, of the profile itself. */
  language: string;
}

export const profiles: FactKind<ProfilesQuestion, z.infer<typeof answer>> = {
  answer,
  key: ({ names, company, city, country, language }) =>
    JSON.stringify([names, company, city, country, language]).toLowerCase(),
  who: () => 'directory',
  ages: true,
  paid: false,
  priceCents: () => 0,
  silence: () => null,
};
