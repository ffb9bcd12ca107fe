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
  'earlierAddress',
  'profile',
  'note',
] as const;

export type PersonField = (typeof PERSON_FIELDS)[number];

/** Read from another field: level and team from the title, the legal form from the company. */
export const READ_FROM_OTHERS: readonly PersonField[] = ['level', 'team', 'legalForm'];

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
  ['earlierAddress'],
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

/** A postal address in one line; '' where it says less than a street with its town or postcode. */
export const addressLine = ({ street, city, postcode }: Pick<Person, 'street' | 'city' | 'postcode'>): string =>
  street !== '' && (city !== '' || postcode !== '') ? [street, city, postcode].filter(Boolean).join(', ') : '';
