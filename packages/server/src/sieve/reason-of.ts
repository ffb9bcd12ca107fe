import { REST_FIELDS, type StoredContact } from './stored-contact';

/** Why somebody stopped, as reasons are counted: by rule where a step has rules, by verdict and its reason where an address has one, else by code. */
export const reasonOf = ({ code, why }: Pick<StoredContact, 'code' | 'why'>): string =>
  'rule' in why ? `rule-${why['rule']}` : code === 'verdict' ? `verdict ${why['verdict']} ${why['reason']}` : code;

const of = (name: string) => `json_extract(rest, '$[${REST_FIELDS.indexOf('why')}].${name}')`;
/** The same of a row of contacts. */
export const REASON_SQL = `CASE WHEN ${of('rule')} IS NOT NULL THEN 'rule-' || ${of('rule')}
  WHEN code = 'verdict' THEN 'verdict ' || ${of('verdict')} || ' ' || ${of('reason')} ELSE code END`;
