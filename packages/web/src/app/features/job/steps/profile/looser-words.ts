import type { Looser } from '@sieve/core/steps/profile/options';

/** What each looser way of looking does. */
export const LOOSER_WORDS: Record<Looser, string> = {
  'short-forms': 'by short forms of the first name',
  'one-name': 'by one of both names, the other misspelt',
  'other-company': 'at other companies',
  anywhere: 'anywhere',
};
