import * as z from 'zod';

export const appendEmailOptions = z.object({
  /** How many addresses made from the name are tried before a finder is asked. */
  candidates: z.int().min(0).max(12).default(5),
  /** One that is less likely is not worth a question, 0 to 1. */
  leastChance: z.number().min(0).max(1).default(0.01),
  /** Finders in lookup order, by their id in the settings. */
  finders: z.array(z.string()).max(10).default([]),
  /** Days after which who was not found is asked about again; 0: never. Common practice, no source: half a year. */
  againDays: z.int().min(0).max(3650).default(180),
});
export type AppendEmailOptions = z.output<typeof appendEmailOptions>;
