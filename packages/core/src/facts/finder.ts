import * as z from 'zod';
import type { FactKind } from './fact-kind';

const answer = z.object({ email: z.string().nullable(), lookup: z.string(), priceCents: z.int() });

/** What a finder offers for a person, for nothing; buying it is a question of its own. */
export const finder: FactKind<
  { finder: string; firstName: string; lastName: string; domain: string },
  z.infer<typeof answer>
> = {
  answer,
  key: (q) => JSON.stringify([q.firstName.toLowerCase(), q.lastName.toLowerCase(), q.domain]),
  who: ({ finder: id }) => id,
  ages: false,
  paid: false,
  priceCents: () => 0,
  silence: () => null,
};
