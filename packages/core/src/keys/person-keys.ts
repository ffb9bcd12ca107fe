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

/**
 * Keys under which somebody may be known besides their own: by other forms of the first name (Bill, William), and at a firm whose name is theirs
 * without its last word. Who is found by one of these only is judged by a person.
 */
export function likelyKeys({ firstName, lastName, domain, company }: Readonly<Person>): string[] {
  if (firstName.length < 2 || lastName === '') return [];
  const [own, last, firm] = [fold(firstName), fold(lastName), fold(company)];
  const short = fold(company.trim().split(/\s+/).slice(0, -1).join(' '));
  return formsOf(own).flatMap((form) => {
    const name = `${form} ${last}`;
    return [
      ...(form !== own && domain !== '' ? [`at:${name} ${domain}`] : []),
      ...(form !== own && firm !== '' ? [`of:${name} ${firm}`] : []),
      ...(short !== '' ? [`of:${name} ${short}`] : []),
    ];
  });
}
