import * as z from 'zod';
import { OF_MAIL, type FactKind } from './fact-kind';

/** Where mail for a domain goes. `none`: the domain exists but takes no mail; `no-domain`: it does not exist. */
const answer = z.discriminatedUnion('state', [
  z.object({ state: z.literal('hosts'), hosts: z.array(z.string()) }),
  z.object({ state: z.enum(['none', 'no-domain', 'failed']) }),
]);

export const mailHost: FactKind<{ domain: string }, z.infer<typeof answer>> = {
  ...OF_MAIL,
  answer,
  key: ({ domain }) => domain,
  silence: ({ state }) => (state === 'failed' ? 'lookup-failed' : null),
};
