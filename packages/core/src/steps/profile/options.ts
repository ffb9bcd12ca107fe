import * as z from 'zod';

/** Ways to look for those who are not found as their row says, in the order in which they are tried. */
export const LOOSER = ['short-forms', 'one-name', 'other-company', 'anywhere'] as const;
export type Looser = (typeof LOOSER)[number];

export const profileOptions = z.object({
  looser: z.array(z.enum(LOOSER)).default(['short-forms', 'one-name']),
  /** A profile at least so likely is taken; below, it is judged. */
  takeFrom: z.number().min(0.5).max(1).default(0.8),
  /** Profiles that are less likely are not worth a look. */
  judgeFrom: z.number().min(0).max(1).default(0.1),
  /** Only profiles in this language (ISO 639-1); '': in any. */
  language: z.string().max(2).default(''),
  /** Who has none is set aside. */
  needed: z.boolean().default(true),
});
export type ProfileOptions = z.output<typeof profileOptions>;

/** What a row and a profile are compared by. `past`: the row's company is one of the profile's earlier ones. */
export const SPEAKS = ['firstName', 'lastName', 'company', 'past', 'city', 'country', 'title'] as const;
export type Speaks = (typeof SPEAKS)[number];
