import * as z from 'zod';
import { PHONE_PASSES } from '../../model/phone';

export const appendPhoneOptions = z.object({
  /** Services in lookup order, by their id in the settings. */
  services: z.array(z.string()).max(10).default([]),
  /** Each pass asks all services for those whom the pass before left without a phone. */
  passes: z
    .array(z.enum(PHONE_PASSES))
    .max(PHONE_PASSES.length)
    .default([...PHONE_PASSES]),
  /** Who has no phone in the end is set aside; else they go on without one. */
  needed: z.boolean().default(false),
  /** Days after which who was not found is asked about again; 0: never. Common practice, no source: half a year. */
  againDays: z.int().min(0).max(3650).default(180),
});
export type AppendPhoneOptions = z.output<typeof appendPhoneOptions>;

/** Earlier addresses of one person that are asked about. */
export const MOST_EARLIER = 2;

/** How many questions one person can take of each service. */
export const mostQuestions = ({ passes }: AppendPhoneOptions): number =>
  passes.reduce((sum, pass) => sum + (pass === 'earlier' ? MOST_EARLIER : 1), 0);
