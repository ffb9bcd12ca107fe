import type { StoredContact } from './stored-contact';

/** Why somebody stopped, as reasons are counted: by rule where a step has rules, else by code. */
export const reasonOf = ({ code, why }: Pick<StoredContact, 'code' | 'why'>): string =>
  'rule' in why ? `rule-${why['rule']}` : code;
