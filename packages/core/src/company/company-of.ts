import type { Company } from '../model/company';
import type { Person } from '../model/person';
import type { Column, Target } from '../model/target';

/** The company that a tidied record is about. */
export function companyOf(person: Person, cells: readonly string[], columns: readonly Column[]): Company {
  const own = (target: Target) => cells[columns.findIndex((column) => column.target === target)]?.trim() ?? '';
  const { company: name, legalForm, domain, profile: link, street, city, postcode, region, country } = person;
  return {
    name,
    legalForm,
    domain,
    link,
    sector: own('sector'),
    headcount: own('headcount'),
    street,
    city,
    postcode,
    region,
    country,
  };
}
