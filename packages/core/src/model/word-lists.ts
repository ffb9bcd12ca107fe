import * as z from 'zod';
import { LEVELS } from '../words/titles/ranks';
import { TEAMS } from '../words/titles/teams';

const words = z.array(z.string().trim().toLowerCase().min(1).max(200)).max(50_000).default([]);

/** What words of a title mean; '': nothing of that kind. */
export const titleWord = z.object({
  words: z.string().trim().toLowerCase().min(1).max(200),
  level: z.enum(['', ...LEVELS]),
  team: z.enum(['', ...TEAMS]),
});
export type TitleWord = z.output<typeof titleWord>;

/** What words of names are. */
export const NAME_PARTS = ['honorific', 'suffix', 'degree', 'particle'] as const;
export const namePart = z.object({ word: z.string().trim().toLowerCase().min(1).max(60), is: z.enum(NAME_PARTS) });
export type NamePart = z.output<typeof namePart>;

/** Words of one's own, beside those that ship. */
export const wordLists = z.object({
  /** Mailbox providers open to everybody: an address there says nothing of an employer. */
  freeMail: words,
  /** Domains of throw-away addresses. */
  disposableMail: words,
  /** Words that the names of firms have and those of people have not: dairy, bakery. */
  companyWords: words,
  /** Words of titles that mean another level or team than what ships says. */
  titleWords: z.array(titleWord).max(5000).default([]),
  /** Legal forms as they are to be written. */
  legalForms: z.array(z.string().trim().min(1).max(60)).max(1000).default([]),
  /** Words of names that are something else here, or nothing that ships. */
  nameParts: z.array(namePart).max(5000).default([]),
});
export type WordLists = Readonly<z.output<typeof wordLists>>;

export const NO_LISTS: WordLists = wordLists.parse({});
