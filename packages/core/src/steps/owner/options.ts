import * as z from 'zod';

export const ownerOptions = z.object({
  /** Finders in the order in which they are asked, by their id in the settings. */
  finders: z.array(z.string()).max(10).default([]),
  /** A name at least so likely is taken; below, it is looked at. */
  takeFrom: z.number().min(0.5).max(1).default(0.8),
});
export type OwnerOptions = z.output<typeof ownerOptions>;
