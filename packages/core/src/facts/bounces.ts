import * as z from 'zod';
import type { FactKind } from './fact-kind';

const answer = z.object({ addresses: z.array(z.string()) });

/** Addresses of a domain that its mail server accepted, and for which mail came back all the same. Nobody is asked: a person brings bounces in. */
export const bounces: FactKind<{ domain: string }, z.infer<typeof answer>> = {
  answer,
  key: ({ domain }) => domain,
  who: () => 'bounces',
  ages: false,
  paid: false,
  priceCents: () => 0,
  silence: () => null,
};
