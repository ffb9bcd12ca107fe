import * as z from 'zod';

/** By what an entry names somebody, or all of a firm. */
export const SUPPRESSION_KINDS = ['email', 'profile', 'phone', 'person', 'domain', 'company'] as const;
/** Why somebody must not be contacted. */
export const SUPPRESSION_REASONS = [
  'asked not to be',
  'not to be called',
  'customer',
  'competitor',
  'with a colleague',
  'bounced',
] as const;

/** Somebody, or a firm, who must not be contacted. `value`: in one form; of a person the name, a comma and the company. */
export const suppressionEntry = z.object({
  kind: z.enum(SUPPRESSION_KINDS),
  value: z.string().min(1).max(500),
  why: z.enum(SUPPRESSION_REASONS).default('asked not to be'),
  /** Where it came from: a file's name; '' by hand. */
  source: z.string().max(300).default(''),
  /** When it ends, in ms; null: never. */
  until: z.int().nullable().default(null),
});
export type SuppressionEntry = z.output<typeof suppressionEntry>;
export type SuppressionKind = SuppressionEntry['kind'];

/** Who must not be contacted, by key. */
export type Suppression = ReadonlyMap<string, SuppressionEntry>;
