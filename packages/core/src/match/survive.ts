import { allowedBy, type HeldRules } from './held-rules';
import { FIELDS_TOGETHER, type Person, type PersonField } from '../model/person';

export interface Survivor {
  person: Person;
  /** For each field with a value, the record that it came from. */
  from: Partial<Record<PersonField, number>>;
}

/** One of the records that are merged. */
interface Candidate {
  recordId: number;
  person: Person;
  rules?: HeldRules | null;
}

/**
 * Which values survive a merge.
 *
 * - fullest: the value that most records share, of those the one that says most (a full first name over an initial)
 * - frequent: the value that most records share, the latest of equals
 * - first / latest: the earliest or latest record that has a value
 *
 * What a source says about what is held goes before it, by field.
 *
 * @param group the records of one cluster, earliest first; two or more
 * @param ruleOf fields, by the first of those that go together, for which another rule holds
 */
export function survive(
  group: readonly Candidate[],
  rule: Rule,
  ruleOf: Partial<Record<PersonField, Rule>> = {},
): Survivor {
  const from: Survivor['from'] = {};
  const person = { ...group[0]!.person };
  for (const fields of FIELDS_TOGETHER) {
    const chosen = choose(allowedBy(group, fields), fields, ruleOf[fields[0]!] ?? rule);
    if (!chosen) {
      for (const field of fields) person[field] = '';
      continue;
    }
    for (const field of fields) {
      person[field] = chosen.person[field];
      if (person[field] !== '') from[field] = chosen.recordId;
    }
  }
  return { person, from };
}

/** What is most complete, what most records share, what came first, what came last. */
export const SURVIVOR_RULES = ['fullest', 'frequent', 'first', 'latest'] as const;
type Rule = (typeof SURVIVOR_RULES)[number];

/** The record whose values of these fields survive; none when all are blank. */
function choose(group: readonly Candidate[], fields: readonly PersonField[], rule: Rule): Candidate | undefined {
  if (alike(group, fields)) return rule === 'latest' ? group.at(-1) : group[0];
  const filled = group.filter(({ person }) => fields.some((field) => person[field] !== ''));
  if (rule === 'first' || filled.length <= 1) return filled[0];
  if (rule === 'latest') return filled.at(-1);
  const text = ({ person }: Candidate) => fields.map((field) => person[field]).join('\n');
  const parts = ({ person }: Candidate) => fields.filter((field) => person[field].length > 2).length;
  const votes = (one: Candidate) => filled.filter((other) => text(other) === text(one)).length;
  if (rule === 'frequent') return filled.reduce((best, one) => (votes(one) >= votes(best) ? one : best));
  return filled.sort((a, b) => parts(b) - parts(a) || votes(b) - votes(a) || text(b).length - text(a).length)[0];
}

function alike(group: readonly Candidate[], fields: readonly PersonField[]): boolean {
  if (group.length === 0) return false;
  const { person: first } = group[0]!;
  for (const { person } of group) for (const field of fields) if (person[field] !== first[field]) return false;
  return true;
}
