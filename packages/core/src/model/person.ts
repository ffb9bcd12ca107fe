/** The standard fields of a row after tidying, in the order in which they are shown. Empty means ''. */
export const PERSON_FIELDS = [
  'honorific',
  'firstName',
  'middleName',
  'lastName',
  'suffix',
  'title',
  'level',
  'team',
  'company',
  'legalForm',
  'sector',
  'headcount',
  'domain',
  'email',
  'phone',
  'street',
  'city',
  'postcode',
  'region',
  'country',
  'profile',
  'note',
] as const;

export type PersonField = (typeof PERSON_FIELDS)[number];

/** Fields that only make sense from one record together. */
export const FIELDS_TOGETHER: readonly (readonly PersonField[])[] = [
  ['honorific'],
  ['firstName', 'middleName', 'lastName', 'suffix'],
  ['title', 'level', 'team'],
  ['company', 'legalForm'],
  ['sector'],
  ['headcount'],
  ['domain'],
  ['email'],
  ['phone'],
  ['street', 'city', 'postcode', 'region', 'country'],
  ['profile'],
  ['note'],
];

/** The field itself, with those that come from the same record. */
export const togetherWith = (field: PersonField): readonly PersonField[] =>
  FIELDS_TOGETHER.find((fields) => fields.includes(field)) ?? [field];

export type Person = Record<PersonField, string>;

const EMPTY = Object.fromEntries(PERSON_FIELDS.map((field) => [field, ''])) as Person;

export const emptyPerson = (): Person => ({ ...EMPTY });

export const fullName = (p: Pick<Person, 'firstName' | 'middleName' | 'lastName'>): string =>
  [p.firstName, p.middleName, p.lastName].filter(Boolean).join(' ');
