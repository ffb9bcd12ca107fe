import { companyKey } from '../company/company-key';
import { groupCompanies, type SaidOfCompanies } from '../company/group-companies';
import type { NamedCompany } from '../company/match-names';
import type { Sorted } from '../decisions/sort-decisions';
import type { Contact } from '../model/contact';

/** Gives each contact the key of its company: its own, or that of the company which it was matched with. */
export function groupFirms(contacts: readonly Contact[], { companies }: Pick<Sorted, 'companies'>): void {
  const places = new Map<string, number>();
  const firms: (NamedCompany & { key: string })[] = [];
  for (const { person } of contacts) {
    const key = companyKey(person);
    if (key === '' || places.has(key)) continue;
    places.set(key, firms.length);
    firms.push({
      key,
      name: person.company,
      domain: person.domain,
      city: person.city,
      country: person.country,
      link: '',
    });
  }
  const placesOf = (keys: readonly string[]) => keys.flatMap((key) => places.get(key) ?? []);
  const said: SaidOfCompanies = {
    same: companies.same.map(placesOf).filter(({ length }) => length === 2) as [number, number][],
    different: companies.different.map(placesOf).filter(({ length }) => length === 2),
  };
  const first = groupCompanies(firms, said);
  // Of a group the one with a domain lends its key, so that what is known by domain is known of all.
  const keys = new Map<number, string>();
  const lend = (has: (domain: string) => boolean) => {
    for (const [i, { key, domain }] of firms.entries())
      if (has(domain) && !keys.has(first[i]!)) keys.set(first[i]!, key);
  };
  lend((domain) => domain !== '');
  lend((domain) => domain === '');
  for (const contact of contacts) {
    const place = places.get(companyKey(contact.person));
    contact.firmKey = place === undefined ? '' : keys.get(first[place]!)!;
  }
}
