import { isDisposableEmail } from 'disposable-email-domains-js';
import providers from 'email-providers/common.json';

/** Mailbox providers open to everybody (npm email-providers): an address there says nothing of an employer. */
const FREE = new Set<string>([...providers, 'freepost.example']);

/** Simulated provider of throw-away addresses; the real ones come from npm disposable-email-domains-js (CC0). */
const SIMULATED_DISPOSABLE = '@throwaway.example';

/** Local parts that belong to a job and not to a person (RFC 2142 and common practice). */
const ROLES = new Set(
  'abuse accounts admin administrator billing bookings careers compliance contact customerservice customers enquiries enquiry events export feedback finance ftp help hello helpdesk hostmaster hr info information inquiries invoices it jobs legal mail mailbox marketing media news newsletter noc no-reply noreply office operations orders post postmaster press privacy purchasing reception recruitment returns root sales security service shop support team tech trade uucp webmaster welcome www'.split(
    ' ',
  ),
);

export const isFreeMail = (domain: string): boolean => FREE.has(domain);
export const isRole = (email: string): boolean => ROLES.has(email.slice(0, email.indexOf('@')).split('+')[0]!);
export const isDisposable = (email: string): boolean =>
  email.endsWith(SIMULATED_DISPOSABLE) || isDisposableEmail(email);
