import type { Person } from '../model/person';
import { fold } from '../text/fold';
import { formsOf } from '../words/nicknames';

/**
 * The keys by which a person is known over all jobs; two people who share one are held to be the same. Phones count with the
 * last name, since a switchboard is everybody's; names count with the domain or the company's name.
 *
 * @returns none for somebody with neither an address, a link nor a whole name with a phone or a firm
 */
export function personKeys({
  firstName,
  lastName,
  email,
  phone,
  profile,
  domain,
  company,
}: Readonly<Person>): string[] {
  const keys: string[] = [];
  if (email !== '') keys.push(`email:${email}`);
  if (profile !== '') keys.push(`profile:${profile}`);
  if (lastName === '') return keys;
  const last = fold(lastName);
  if (phone !== '') keys.push(`phone:${phone} ${last}`);
  if (firstName.length < 2) return keys;
  const name = `${fold(firstName)} ${last}`;
  if (domain !== '') keys.push(`at:${name} ${domain}`);
  if (company !== '') keys.push(`of:${name} ${fold(company)}`);
  return keys;
}

/** The key of somebody's whole name, that of namesakes too; none without one. */
export const nameKeys = ({ firstName, lastName }: Pick<Person, 'firstName' | 'lastName'>): string[] =>
  firstName.length < 2 || lastName === '' ? [] : [`name:${fold(firstName)} ${fold(lastName)}`];

/** The name keys of those who may be the same: by other forms of the first name too (Bill, William). */
export const likeNameKeys = ({ firstName, lastName }: Readonly<Person>): string[] =>
  formsOf(fold(firstName)).flatMap((form) => nameKeys({ firstName: form, lastName }));
