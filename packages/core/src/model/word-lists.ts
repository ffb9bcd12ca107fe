import * as z from 'zod';

const words = z.array(z.string().trim().toLowerCase().min(1).max(200)).max(50_000).default([]);

/** Words of one's own, beside those that ship. */
export const wordLists = z.object({
  /** Mailbox providers open to everybody: an address there says nothing of an employer. */
  freeMail: words,
  /** Domains of throw-away addresses. */
  disposableMail: words,
  /** Words that the names of firms have and those of people have not: dairy, bakery. */
  companyWords: words,
});
export type WordLists = Readonly<z.output<typeof wordLists>>;

export const NO_LISTS: WordLists = { freeMail: [], disposableMail: [], companyWords: [] };
