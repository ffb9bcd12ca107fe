import { disposableEmailBlocklistSet } from 'disposable-email-domains-js';
import providers from 'email-providers/common.json';

/** Mailbox providers open to everybody (npm email-providers): an address there says nothing of an employer. */
const FREE = new Set<string>(providers);

/** Throw-away domains as npm disposable-email-domains-js (CC0) has them: its own question makes a set of all of them each time. */
const DISPOSABLE = disposableEmailBlocklistSet();

/** Local parts that belong to a job and not to a person (RFC 2142 and common practice). */
const ROLES = new Set(
  'abuse accounts admin administrator billing bookings careers compliance contact customerservice customers enquiries enquiry events export feedback finance ftp help hello helpdesk hostmaster hr info information inquiries invoices it jobs legal mail mailbox marketing media news newsletter noc no-reply noreply office operations orders post postmaster press privacy purchasing reception recruitment returns root sales security service shop support team tech trade uucp webmaster welcome www'.split(
    ' ',
  ),
);

/** @param more domains of one's own list */
export const isFreeMail = (domain: string, more: readonly string[]): boolean =>
  FREE.has(domain) || more.includes(domain);
export const isRole = (email: string): boolean => ROLES.has(email.slice(0, email.indexOf('@')).split('+')[0]!);
/** A throw-away domain of the list or of one's own. */
export function isDisposable(email: string, more: readonly string[]): boolean {
  const domain = email.slice(email.lastIndexOf('@') + 1).toLowerCase();
  return DISPOSABLE.has(domain) || more.includes(domain);
}
