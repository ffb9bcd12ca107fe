import * as z from 'zod';
import { at, count, fate, id } from './model';

export const newSuppressions = z.object({ text: z.string().min(1).max(5_000_000) });
export const suppressionRow = z.object({ value: z.string(), kind: z.enum(['email', 'domain']), at });
export type SuppressionRow = z.output<typeof suppressionRow>;
export const suppressed = z.object({ added: count, refused: z.array(z.string()) });

export const findQuery = z.object({ q: z.string().trim().min(2).max(100) });
/** Somebody held in a job, found by the beginning of a name, of the company's name or of the address. */
export const foundContact = z.object({
  jobId: id,
  contact: id,
  name: z.string(),
  company: z.string(),
  email: z.string(),
  /** Where it stands in the job's sieve. */
  step: z.string(),
  fate: fate.shape.state,
});
export type FoundContact = z.output<typeof foundContact>;

const named = z.object({ id, name: z.string() });
/** What has some words in its name, of what a server holds. */
export const foundThings = z.object({
  contacts: z.array(foundContact),
  searches: z.array(named),
  pickLists: z.array(named),
  sources: z.array(named.extend({ jobId: id })),
});
export type FoundThings = z.output<typeof foundThings>;
