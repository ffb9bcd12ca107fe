import type { PersonField } from './person';

/** Why a value was changed while tidying; the words stand in the contract's table. */
export type ChangeCode =
  | 'symbols-removed'
  | 'capitals'
  | 'credentials-removed'
  | 'nickname-removed'
  | 'first-of-several'
  | 'spaces'
  | 'name-split'
  | 'order-turned'
  | 'slogan-removed'
  | 'legal-form'
  | 'abbreviation'
  | 'place-split'
  | 'canonical-link'
  | 'domain-from-link'
  | 'domain-from-email'
  | 'name-from-email'
  | 'e164'
  | 'email-normalised'
  | 'country-code'
  | 'edited';

/** One change to one value: what came, what it became, and why. */
export interface Change {
  field: PersonField;
  was: string;
  is: string;
  why: ChangeCode[];
}
