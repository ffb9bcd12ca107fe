import { isIP } from './ip';

const ATEXT = "A-Za-z0-9!#$%&'*+/=?^_`{|}~\\-";
const DOT_STRING = new RegExp(`^[${ATEXT}\u{80}-\u{10ffff}]+(\\.[${ATEXT}\u{80}-\u{10ffff}]+)*$`, 'u');
const QUOTED_STRING = /^"([\x20-\x21\x23-\x5b\x5d-\x7e\u{80}-\u{10ffff}]|\\[\x20-\x7e])*"$/u;
const LABEL = /^[\p{L}\p{N}]([\p{L}\p{M}\p{N}-]*[\p{L}\p{M}\p{N}])?$/u;

/**
 * True when mail could be sent to the address: the Mailbox of RFC 5321 (4.1.2) with its lengths (4.5.3.1: local part
 * 64 octets, domain 255, path 254), RFC 1123 host names or an address literal, and UTF-8 as RFC 6531 allows.
 * Comments and folding white space, which only headers may hold (RFC 5322), are not accepted.
 */
export function isMailbox(address: string): boolean {
  const at = address.lastIndexOf('@');
  if (at < 1 || octets(address) > 254) return false;
  const local = address.slice(0, at);
  const domain = address.slice(at + 1);
  if (octets(local) > 64 || octets(domain) > 255) return false;
  if (!DOT_STRING.test(local) && !QUOTED_STRING.test(local)) return false;
  return domain.startsWith('[')
    ? isLiteral(domain)
    : domain.split('.').every((label) => octets(label) <= 63 && LABEL.test(label));
}

function isLiteral(domain: string): boolean {
  if (!domain.endsWith(']')) return false;
  const inner = domain.slice(1, -1);
  const tagged = /^([A-Za-z0-9-]*[A-Za-z0-9]):([\x21-\x5a\x5e-\x7e]+)$/.exec(inner);
  if (!tagged) return isIP(inner) === 4;
  return tagged[1]!.toLowerCase() === 'ipv6' && isIP(tagged[2]!) === 6;
}

/** Length in octets of UTF-8. */
function octets(s: string): number {
  let n = 0;
  for (const char of s) {
    const code = char.codePointAt(0)!;
    n += code < 0x80 ? 1 : code < 0x800 ? 2 : code < 0x10000 ? 3 : 4;
  }
  return n;
}
