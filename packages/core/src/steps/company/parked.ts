import type { SitePage } from '../../facts/website';
import { wordFinder } from '../../text/word-finder';

/** What the pages of those say who hold domains for sale. Common practice, no source. */
const SAYS = wordFinder([
  'domain is for sale',
  'domain may be for sale',
  'domain name is for sale',
  'buy this domain',
  'this domain is parked',
  'parked free',
  'domain parking',
  'domain steht zum verkauf',
  'ce domaine est à vendre',
]);
/** A site that says more is somebody's. */
const FEW_LINES = 30;

/** True for a site that nobody uses but who sells its domain. */
export const isParked = (pages: readonly SitePage[]): boolean =>
  pages.reduce((sum, { lines }) => sum + lines.length, 0) <= FEW_LINES &&
  pages.some(({ title, lines }) => [title, ...lines].some((line) => SAYS(line) !== ''));
