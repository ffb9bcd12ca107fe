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

/**
 * How sure a name is that was read from an address: of 573 addresses with names among Debian's and npm's maintainers that say one 519 said their own; most others turn it round or
 * have a word that is no name.
 */
export const NAME_FROM_EMAIL_SURE = 0.9;
