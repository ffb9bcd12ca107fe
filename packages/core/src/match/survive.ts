import { PERSON_FIELDS, type Person, type PersonField } from '../model/person';

export interface Survivor {
  person: Person;
  /** For each field with a value, the index in the group of the record that it came from. */
  from: Partial<Record<PersonField, number>>;
}

/** Fields that only make sense from one record together. */
const TOGETHER: readonly (readonly PersonField[])[] = [
  ['honorific'],
  ['firstName', 'middleName', 'lastName', 'suffix'],
  ['title', 'level', 'team'],
  ['company', 'legalForm'],
  ['domain'],
  ['email'],
  ['phone'],
  ['city', 'region', 'country'],
  ['profile'],
  ['note'],
];

/**
 * Which values survive a merge.
 *
 * - fullest: the value that most records share, of those the one that says most (a full first name over an initial)
 * - first / latest: the earliest or latest record that has a value
 *
 * @param group the records of one cluster, earliest first; never empty
 */
export function survive(group: readonly Person[], rule: 'fullest' | 'first' | 'latest'): Survivor {
  const from: Survivor['from'] = {};
  if (group.length === 1) {
    const only = group[0]!;
    for (const field of PERSON_FIELDS) if (only[field] !== '') from[field] = 0;
    return { person: only, from };
  }
  const person = {} as Person;
  for (const fields of TOGETHER) {
    const filled = group.map((_, i) => i).filter((i) => fields.some((field) => group[i]![field] !== ''));
    const chosen = rule === 'fullest' ? fullest(group, fields, filled) : rule === 'first' ? filled[0] : filled.at(-1);
    for (const field of fields) {
      person[field] = chosen === undefined ? '' : group[chosen]![field];
      if (chosen !== undefined && person[field] !== '') from[field] = chosen;
    }
  }
  return { person, from };
}

function fullest(group: readonly Person[], fields: readonly PersonField[], filled: number[]): number | undefined {
  const text = (i: number) => fields.map((field) => group[i]![field]).join('\n');
  const votes = new Map<string, number>();
  for (const i of filled) votes.set(text(i), (votes.get(text(i)) ?? 0) + 1);
  const parts = (i: number) => fields.filter((field) => group[i]![field].length > 2).length;
  return [...filled].sort(
    (i, j) =>
      parts(j) - parts(i) || votes.get(text(j))! - votes.get(text(i))! || text(j).length - text(i).length || i - j,
  )[0];
}
