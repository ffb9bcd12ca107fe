import { COMPANY_FIELDS, type Company } from '../model/company';
import type { Person } from '../model/person';

/** The company that a tidied record is about; its link stands where a person's profile link does. */
export function companyOf(person: Person): Company {
  const company = { ...person, name: person.company, link: person.profile };
  return Object.fromEntries(COMPANY_FIELDS.map((field) => [field, company[field]])) as Company;
}
