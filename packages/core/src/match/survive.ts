import type { Person, PersonField } from '../model/person';

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
 * @param group the records of one cluster, earliest first; two or more
 */
export function survive(group: readonly Person[], rule: Rule): Survivor {
  const from: Survivor['from'] = {};
  const person = { ...group[0]! };
  for (const fields of TOGETHER) {
    const chosen = choose(group, fields, rule);
    if (chosen === undefined) continue;
    for (const field of fields) {
      person[field] = group[chosen]![field];
      if (person[field] !== '') from[field] = chosen;
    }
  }
  return { person, from };
}

type Rule = 'fullest' | 'first' | 'latest';

/** The index of the record whose values of these fields survive; none when all are blank. */
function choose(group: readonly Person[], fields: readonly PersonField[], rule: Rule): number | undefined {
  const [first] = group as [Person, ...Person[]];
  if (group.every((one) => fields.every((field) => one[field] === first[field])))
    return rule === 'latest' ? group.length - 1 : 0;
  const texts = group.map((one) => textOf(one, fields));
  const filled = [...texts.keys()].filter((i) => texts[i] !== '');
  if (rule === 'fullest') return fullest(group, fields, filled, texts);
  return rule === 'first' ? filled[0] : filled.at(-1);
}

/** What the fields hold together, '' when they are all blank. */
function textOf(person: Person, fields: readonly PersonField[]): string {
  if (fields.length === 1) return person[fields[0]!];
  return fields.some((field) => person[field] !== '') ? fields.map((field) => person[field]).join('\n') : '';
}

function fullest(
  group: readonly Person[],
  fields: readonly PersonField[],
  filled: readonly number[],
  texts: readonly string[],
): number | undefined {
  if (filled.every((i) => texts[i] === texts[filled[0]!])) return filled[0];
  const parts = (i: number) => fields.filter((field) => group[i]![field].length > 2).length;
  const votes = (i: number) => filled.filter((j) => texts[j] === texts[i]).length;
  return [...filled].sort(
    (i, j) => parts(j) - parts(i) || votes(j) - votes(i) || texts[j]!.length - texts[i]!.length || i - j,
  )[0];
}
