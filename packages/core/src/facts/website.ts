import * as z from 'zod';
import type { FactKind } from './fact-kind';

/** One page of a site: its path, and what it says, a line a sentence or block. */
export const sitePage = z.object({ path: z.string(), title: z.string(), lines: z.array(z.string()) });
export type SitePage = z.infer<typeof sitePage>;

/**
 * The own website of a company, as it was read. `no-domain`: there is no such domain; `no-site`: it has no host, or nothing at its home;
 * `refused`: its robots.txt allows nothing. A site that did not answer says nothing.
 */
const answer = z.discriminatedUnion('state', [
  z.object({ state: z.literal('read'), pages: z.array(sitePage) }),
  z.object({ state: z.enum(['no-domain', 'no-site', 'refused', 'try-later', 'no-answer']) }),
]);
export type WebsiteAnswer = z.infer<typeof answer>;

export const website: FactKind<{ domain: string }, WebsiteAnswer> = {
  answer,
  key: ({ domain }) => domain,
  who: () => 'website',
  ages: true,
  paid: false,
  priceCents: () => 0,
  silence: ({ state }) => (state === 'try-later' || state === 'no-answer' ? `site-${state}` : null),
};
