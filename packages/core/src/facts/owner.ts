import * as z from 'zod';
import type { FactKind } from './fact-kind';
import { pays } from './pays';

/** Whose an address is, as a finder says; '' for what it does not say. */
export const owned = z.object({
  firstName: z.string().max(200),
  lastName: z.string().max(200),
  title: z.string().max(300),
  company: z.string().max(300),
});
export type Owned = z.infer<typeof owned>;

const answer = z.object({
  person: owned.nullable(),
  priceCents: z.int().min(0),
  pays,
  /** What the answer took of the finder's plan. */
  credits: z.int().min(0).optional(),
});

/** Who has an address. A finder is paid for each person that it knows, or for each question where it charges so. */
export const owner: FactKind<{ finder: string; email: string }, z.infer<typeof answer>> = {
  answer,
  key: ({ email }) => email,
  who: ({ finder }) => finder,
  ages: false,
  isNone: ({ person }) => person === null,
  paid: false,
  priceCents: () => 0,
  charged: (_, { pays, person, priceCents }) => (pays === 'question' || person !== null ? priceCents : 0),
  credits: ({ credits = 0 }) => credits,
  silence: () => null,
};
