import * as z from 'zod';

export const appendEmailOptions = z.object({
  /** How many addresses made from the name are tried before a finder is asked. */
  candidates: z.int().min(0).max(12).default(5),
  /** Finders in lookup order, by their id in the settings. */
  finders: z.array(z.string()).max(10).default([]),
});
export type AppendEmailOptions = z.output<typeof appendEmailOptions>;
