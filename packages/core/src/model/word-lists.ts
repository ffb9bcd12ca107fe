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
});
export type WordLists = Readonly<z.output<typeof wordLists>>;

export const NO_LISTS: WordLists = { freeMail: [], disposableMail: [], companyWords: [], titleWords: [] };
