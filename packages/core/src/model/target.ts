/** What a column of a source can become. `own` is a field of the person's own, `skip` leaves it out. */
export const TARGETS = [
  'fullName',
  'honorific',
  'firstName',
  'middleName',
  'lastName',
  'suffix',
  'title',
  'company',
  'website',
  'email',
  'phone',
  'place',
  'street',
  'city',
  'postcode',
  'region',
  'country',
  'profile',
  'note',
  'sector',
  'headcount',
  'own',
  'skip',
] as const;

export type Target = (typeof TARGETS)[number];

/** How one column of a source is read. `name` is the header, or the name of an own field. */
export interface Column {
  name: string;
  target: Target;
}
