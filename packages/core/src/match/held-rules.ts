import type { Person, PersonField } from '../model/person';
import type { Column, HeldRule, Target } from '../model/target';

/** What a source does to what is held already, by field; a field that is not named goes by the rule of its step. */
export type HeldRules = Partial<Record<PersonField, HeldRule>>;

/** The field that stands for those that only make sense together. */
const FIELD_OF: Partial<Record<Target, PersonField>> = {
  fullName: 'firstName',
  firstName: 'firstName',
  middleName: 'firstName',
  lastName: 'firstName',
  suffix: 'firstName',
  honorific: 'honorific',
  title: 'title',
  company: 'company',
  website: 'domain',
  email: 'email',
  phone: 'phone',
  place: 'street',
  street: 'street',
  city: 'street',
  postcode: 'street',
  region: 'street',
  country: 'street',
  earlierAddress: 'earlierAddress',
  profile: 'profile',
  note: 'note',
  sector: 'sector',
  headcount: 'headcount',
};

const known = new WeakMap<readonly Column[], HeldRules | null>();

/** The rules that the columns of a source say; null for none. The same columns give the very same rules. */
export function heldRulesOf(columns: readonly Column[]): HeldRules | null {
  let rules = known.get(columns);
  if (rules === undefined) {
    rules = readRules(columns);
    known.set(columns, rules);
  }
  return rules;
}

function readRules(columns: readonly Column[]): HeldRules | null {
  const rules: HeldRules = {};
  for (const { target, held } of columns) {
    const field = FIELD_OF[target];
    if (held && field) rules[field] = held;
  }
  return Object.keys(rules).length > 0 ? rules : null;
}

interface Ruled {
  person: Person;
  rules?: HeldRules | null;
}

/**
 * Of the records that are merged, those whose values of some fields are chosen from: what overwrites goes before all else, what is to be
 * kept as it is held stays out, what only fills blanks comes where nobody else has a value.
 *
 * @param group earliest first; records of one source share their rules
 */
export function allowedBy<T extends Ruled>(group: readonly T[], fields: readonly PersonField[]): readonly T[] {
  if (group.every(({ rules }) => !rules)) return group;
  const ruleOf = ({ rules }: T) => rules?.[fields[0]!];
  const isFilled = ({ person }: T) => fields.some((field) => person[field] !== '');
  const over = group.filter((one) => ruleOf(one) === 'overwrite' && isFilled(one)).at(-1);
  if (over) return [over];
  const kept = group.filter(
    (one) => ruleOf(one) !== 'keep' || group.every((other) => (other.rules ?? null) === (one.rules ?? null)),
  );
  const plain = kept.filter((one) => ruleOf(one) !== 'fill');
  return plain.some(isFilled) ? plain : kept;
}
