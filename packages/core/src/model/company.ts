/** The standard fields of a company after tidying, in the order in which they are shown. Empty means ''. */
export const COMPANY_FIELDS = [
  'name',
  'legalForm',
  'domain',
  'link',
  'sector',
  'headcount',
  'street',
  'city',
  'postcode',
  'region',
  'country',
] as const;

export type CompanyField = (typeof COMPANY_FIELDS)[number];
export type Company = Record<CompanyField, string>;
