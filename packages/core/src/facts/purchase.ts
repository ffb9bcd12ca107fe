import * as z from 'zod';
import type { FactKind } from './fact-kind';

/** `cents`: what was charged where that is not the price that was asked; `credits`: what was taken of the finder's plan. */
const answer = z.object({
  bought: z.literal(true),
  cents: z.int().min(0).optional(),
  credits: z.int().min(0).optional(),
});

/** An address bought from a finder, once. */
export const purchase: FactKind<{ finder: string; lookup: string; priceCents: number }, z.infer<typeof answer>> = {
  answer,
  key: ({ lookup }) => lookup,
  who: ({ finder }) => finder,
  ages: false,
  paid: true,
  priceCents: ({ priceCents }) => priceCents,
  charged: ({ priceCents }, { cents = priceCents }) => cents,
  credits: ({ credits = 0 }) => credits,
  silence: () => null,
};
