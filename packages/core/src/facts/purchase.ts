import * as z from 'zod';
import type { FactKind } from './fact-kind';

const answer = z.object({ bought: z.literal(true) });

/** An address bought from a finder, once. */
export const purchase: FactKind<{ finder: string; lookup: string; priceCents: number }, z.infer<typeof answer>> = {
  answer,
  key: ({ lookup }) => lookup,
  who: ({ finder }) => finder,
  ages: false,
  paid: true,
  priceCents: ({ priceCents }) => priceCents,
  silence: () => null,
};
