import { linesOf, linksOf, readPage, worthOf, type AnswerOf, type SitePage } from '@sieve/core';
import type { Settings } from '@sieve/contract';
import { AppError } from '../../errors';
import type { MailResolver } from '../mail/resolver';
import { sleep } from '../wrap/pace';
import { AskedToWait } from './asked-to-wait';
import { visitor, type Visited } from './visit';

/** Pages of a site that are read, its home among them. */
const MOST_PAGES = 6;

/**
 * Reads the website of a company: its home, and the pages it links to that say most of what the company does. What robots.txt keeps to
 * itself is left; between two pages the site's own pace is kept, or that of the settings where it asks for none. A home that cannot be
 * had is no answer; another page that cannot be had is left out.
 */
export async function readSite(
  domain: string,
  web: Settings['web'],
  resolver: MailResolver,
  signal: AbortSignal,
): Promise<AnswerOf<'website'>> {
  const host = await hostOf(domain, resolver);
  if ('state' in host) return host;
  const visits = visitor(web);
  let home: Visited;
  try {
    home = await visitHome(host.name, visits, signal);
  } catch (error) {
    if (error instanceof AskedToWait) return { state: 'try-later' };
    if (!(error instanceof AppError)) throw error;
    if (error.code === 'page-refused') return { state: 'refused' };
    const status = error.details['status'];
    const isGone = typeof status === 'number' && status >= 400 && status < 500;
    return { state: isGone || error.code === 'no-page' || error.code === 'private-address' ? 'no-site' : 'no-answer' };
  }
  const page = readPage(home.html);
  const at = new URL(home.address);
  const pages: SitePage[] = [{ path: at.pathname, title: page.title, lines: linesOf(page) }];
  for (const address of worthReading(linksOf(page), page.base ? new URL(page.base, at) : at)) {
    if (pages.length === MOST_PAGES) break;
    const said = await visits.robots(address.href, signal);
    if (!said(address.href).allows) continue;
    await sleep(Math.max(said(address.href).seconds * 1000, 1000 / web.perSitePerSecond), signal);
    try {
      const { html, address: end } = await visits.visit(address.href, signal);
      const { pathname } = new URL(end);
      if (pages.some(({ path }) => path === pathname)) continue;
      const next = readPage(html);
      pages.push({ path: pathname, title: next.title, lines: linesOf(next) });
    } catch (error) {
      if (error instanceof AskedToWait) return { state: 'try-later' };
      if (!(error instanceof AppError)) throw error;
    }
  }
  return { state: 'read', pages };
}

/** Over TLS, else without; its robots.txt tells which of them is served. */
async function visitHome(host: string, visits: ReturnType<typeof visitor>, signal: AbortSignal) {
  const isServed = await visits.robots(`https://${host}/`, signal).then(
    () => true,
    (error: unknown) => {
      if (error instanceof AppError && error.code === 'page-down') return false;
      throw error;
    },
  );
  return visits.visit(`${isServed ? 'https' : 'http'}://${host}/`, signal);
}

/** The host of a domain's site: itself, else its `www`. */
async function hostOf(domain: string, resolver: MailResolver): Promise<{ name: string } | AnswerOf<'website'>> {
  for (const name of [domain, `www.${domain}`]) {
    const addresses = await resolver.addresses(name);
    if (addresses === null) return { state: 'no-answer' };
    if (addresses.length > 0) return { name };
  }
  // Whether there is such a domain at all, its mail says.
  const { state } = await resolver.hosts(domain);
  return { state: state === 'no-domain' ? state : state === 'failed' ? 'no-answer' : 'no-site' };
}

/** Pages of the same site, those that say most first, each once. */
function worthReading(links: readonly { href: string; text: string }[], base: URL): URL[] {
  const found = new Map<string, { address: URL; worth: number }>();
  const siteOf = ({ hostname }: URL) => hostname.replace(/^www\./, '');
  for (const { href, text } of links) {
    if (!URL.canParse(href, base.href)) continue;
    const address = new URL(href, base);
    address.hash = '';
    const worth = worthOf({ path: address.pathname, text });
    if (!/^https?:$/.test(address.protocol) || siteOf(address) !== siteOf(base) || address.pathname === '/') continue;
    if (worth < 0 || found.has(address.href)) continue;
    found.set(address.href, { address, worth });
  }
  return [...found.values()].sort((a, b) => b.worth - a.worth).map(({ address }) => address);
}
