import type { RobotsSay } from '@sieve/contract';
import robotsParser from 'robots-parser';
import { AppError } from '../../errors';
import { throwIfAskedToWait } from './asked-to-wait';
import { AGENT, fetchPage, type Web } from './fetch-page';

/** What a parser has to read at least (RFC 9309 2.5). */
const MOST_BYTES = 512 * 1024;

export type Robots = (address: string) => RobotsSay;

/**
 * What the robots.txt of a site says (RFC 9309): one that is not there (4xx) allows all. One that cannot be had (5xx, no answer) allows
 * nothing, and is no refusal: AppError `page-down` is thrown, or AskedToWait. `Crawl-delay` is not in the standard; where it stands it
 * is kept.
 */
export async function robotsOf(address: string, web: Web, signal: AbortSignal): Promise<Robots> {
  const file = new URL('/robots.txt', address).href;
  const answer = await fetchPage(file, web, signal, () => Promise.resolve());
  throwIfAskedToWait(answer);
  const { status, body } = answer;
  if (status >= 500) throw new AppError('page-down', { address: file, reason: `it answered ${status}` });
  if (status >= 300) return () => ({ allows: true, seconds: 0, found: false });
  const said = robotsParser(file, body.subarray(0, MOST_BYTES).toString('utf8'));
  return (page) => ({
    allows: said.isAllowed(page, AGENT) !== false,
    seconds: Math.max(0, said.getCrawlDelay(AGENT) ?? 0),
    found: true,
  });
}

/** Throws `page-refused` for a page that its site does not allow. */
export function throwIfRefused(robots: Robots, address: string): void {
  const { host, pathname } = new URL(address);
  if (!robots(address).allows) throw new AppError('page-refused', { host, path: pathname });
}
