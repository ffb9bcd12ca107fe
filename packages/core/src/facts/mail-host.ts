import * as z from 'zod';
import { MAIL_FRESH_MS, type FactKind } from './fact-kind';

/** Where mail for a domain goes. `none`: the domain exists but takes no mail; `no-domain`: it does not exist. */
const answer = z.discriminatedUnion('state', [
  z.object({ state: z.literal('hosts'), hosts: z.array(z.string()) }),
  z.object({ state: z.enum(['none', 'no-domain', 'failed']) }),
]);

export const mailHost: FactKind<{ domain: string }, z.infer<typeof answer>> = {
  answer,
  key: ({ domain }) => domain,
  who: () => 'mail',
  freshMs: MAIL_FRESH_MS,
  paid: false,
  priceCents: () => 0,
  silence: ({ state }) => (state === 'failed' ? 'lookup-failed' : null),
};
