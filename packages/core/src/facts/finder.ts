import * as z from 'zod';
import { fold } from '../text/fold';
import type { FactKind } from './fact-kind';
import { pays } from './pays';

const answer = z.object({
  email: z.string().nullable(),
  lookup: z.string(),
  priceCents: z.int(),
  /** What the finder charges for; an address that it sells only when it verifies is bought by a question of its own. */
  pays: pays.default('valid'),
  /** What the answer took of the finder's plan. */
  credits: z.int().min(0).optional(),
});

/** What a finder knows of a person's address. Capitals, accents, spaces and hyphens make no other question. */
export const finder: FactKind<
  { finder: string; firstName: string; lastName: string; domain: string },
  z.input<typeof answer>
> = {
  answer,
  key: (q) => JSON.stringify([fold(q.firstName), fold(q.lastName), q.domain.toLowerCase()]),
  who: ({ finder: id }) => id,
  ages: false,
  isNone: ({ email }) => email === null,
  paid: false,
  priceCents: () => 0,
  charged: (_, { pays, email, priceCents }) =>
    pays === 'question' || (pays === 'answer' && email !== null) ? priceCents : 0,
  credits: ({ credits = 0 }) => credits,
  silence: () => null,
};
