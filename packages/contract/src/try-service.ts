import * as z from 'zod';
import { count } from './model';

/** A service as it stands in the form, saved or not. `account`: its account is asked for; `model`: a language model; `directory`: a link that nobody has. */
export const tryService = z.object({
  kind: z.enum(['account', 'model', 'directory']),
  name: z.string().max(100),
  url: z.url({ protocol: /^https?$/ }),
  key: z.string().max(200),
});
export type TryService = z.output<typeof tryService>;

export const triedService = z.discriminatedUnion('state', [
  z.object({
    state: z.literal('answered'),
    ms: count,
    /** What it says is left of its plan; null where it says nothing. */
    plan: z.object({ credits: count, left: count }).nullable(),
  }),
  z.object({ state: z.literal('down'), reason: z.string() }),
]);
export type TriedService = z.output<typeof triedService>;
