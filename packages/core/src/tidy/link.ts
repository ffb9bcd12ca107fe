import { getDomain } from 'tldts';

/**
 * One canonical form for a link: no scheme, no www, host in lower case, no query, fragment or closing slash.
 *
 * @returns '' when the input is no link
 * @example canonicalLink('HTTPS://www.Directory.example/p/8841/?trk=a') // 'directory.example/p/8841'
 */
export function canonicalLink(input: string): string {
  const found = /^(?:[a-z][a-z+.-]*:\/\/)?(?:[^@/\s]*@)?([^/?#\s:]+)(?::\d+)?([^?#\s]*)/i.exec(input.trim());
  if (!found) return '';
  const host = found[1]!
    .toLowerCase()
    .replace(/^www\d?\./, '')
    .replace(/\.$/, '');
  if (!isHost(host)) return '';
  return host + found[2]!.replace(/\/+$/, '');
}

/** True for a host name of two labels or more (RFC 1123), in Unicode or as punycode. */
export const isHost = (host: string): boolean =>
  host.length <= 253 &&
  /^([\p{L}\p{N}]([\p{L}\p{N}-]{0,61}[\p{L}\p{N}])?\.)+[\p{L}][\p{L}\p{N}-]{0,61}[\p{L}\p{N}]$/u.test(host);

const WHOLE_LIST = { allowPrivateDomains: true, extractHostname: false, validateHostname: false };

/**
 * The domain that an organisation registered: the public suffix (publicsuffix.org) and one label more, '' for none.
 *
 * @example registrableDomain('shop.brackenfold.co.uk') // 'brackenfold.co.uk'
 */
export const registrableDomain = (host: string): string =>
  isHost(host) ? (getDomain(host.toLowerCase(), WHOLE_LIST) ?? '') : '';
