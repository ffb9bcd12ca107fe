import type { Company } from '../model/company';
import type { Person } from '../model/person';

/** The company that a tidied record is about; its link stands where a person's profile link does. */
export const companyOf = ({
  company: name,
  legalForm,
  domain,
  profile: link,
  sector,
  headcount,
  street,
  city,
  postcode,
  region,
  country,
}: Person): Company => ({
  name,
  legalForm,
  domain,
  link,
  sector,
  headcount,
  street,
  city,
  postcode,
  region,
  country,
});
