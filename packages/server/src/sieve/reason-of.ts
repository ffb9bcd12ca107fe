import { REST_FIELDS, type StoredContact } from './stored-contact';

/** Why somebody stopped, as reasons are counted: by rule where a step has rules, else by code. */
export const reasonOf = ({ code, why }: Pick<StoredContact, 'code' | 'why'>): string =>
  'rule' in why ? `rule-${why['rule']}` : code;

const RULE = `json_extract(rest, '$[${REST_FIELDS.indexOf('why')}].rule')`;
/** The same of a row of contacts. */
export const REASON_SQL = `CASE WHEN ${RULE} IS NULL THEN code ELSE 'rule-' || ${RULE} END`;
