import * as z from 'zod';

export const tidyOptions = z.object({
  /** ISO 3166 country in which phones without a country code are read. */
  phoneCountry: z.string().length(2).default('GB'),
});
export type TidyOptions = z.output<typeof tidyOptions>;
