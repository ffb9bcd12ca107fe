import { BLANK, readValue, type Fault, type RuleCondition, type ScreenRule } from '@sieve/core/steps/screen/rules';
import { LEVELS } from '@sieve/core/words/titles/ranks';
import { TEAMS } from '@sieve/core/words/titles/teams';
import type { Clause, SentenceChange, SentenceField } from '../../../../ui/sentence/sentence-model';

type Field = RuleCondition['field'];

/** A field that rules speak of. */
export interface RuleSubject extends SentenceField {
  field: Field;
}

const WORDS = 'Whole words; * is any letters, /^sub/ a pattern, (blank) nothing';
const standard = (field: Field, label: string, values: readonly string[] = []): RuleSubject => ({
  field,
  key: label.toLowerCase(),
  label,
  kind: 'text',
  values: field === 'any' ? values : [...values, BLANK],
  hint: WORDS,
});

const STANDARD: readonly RuleSubject[] = [
  standard('title', 'Title'),
  standard('level', 'Level', LEVELS),
  standard('team', 'Team', TEAMS),
  standard('company', 'Company'),
  standard('sector', 'Sector'),
  { ...standard('headcount', 'Headcount'), kind: 'number', hint: 'A number, a range like 50..200 or 50.., or (blank)' },
  standard('name', 'Name'),
  standard('place', 'Place'),
  standard('domain', 'Domain'),
  standard('email', 'Email'),
  standard('phone', 'Phone'),
  standard('profile', 'Profile link'),
  standard('note', 'Note'),
  standard('any', 'Anywhere'),
];

/** What rules can speak of: the standard fields, and those of the person's own, which have numbers and days between bounds too. */
export const ruleSubjects = (own: readonly string[]): RuleSubject[] => [
  ...STANDARD,
  ...own.map((name) => ({
    ...standard(`own:${name}`, name),
    hint: `${WORDS}; 10..20 or 2024-01-01.. what lies between`,
  })),
];

const FAULTS: Record<Fault, string> = {
  'blank-anywhere': 'Which field is blank has to be said: “phone: (blank)”.',
  'bad-pattern': 'What stands between / and / is no regular expression.',
  'slow-pattern': 'A repetition within a repetition can take for ever: write the pattern without it.',
  'bad-bounds': 'A range needs a number or a day on one side of “..” at least: 10..20, 2024-01-01..',
};

/** A rule as a sentence: one clause a condition. */
export const clausesOf = ({ conditions }: ScreenRule, subjects: readonly RuleSubject[]): Clause[] =>
  conditions.map(({ field, not, values }, i) => {
    const { key, label } = subjects.find((one) => one.field === field) ?? standard(field, field.replace(/^own:/, ''));
    const own = field.startsWith('own:') ? `“${label}”` : label.toLowerCase();
    const and = i > 0 ? 'and ' : '';
    return {
      field: key,
      name: not ? `${label}, not` : label,
      words:
        and +
        (field === 'any'
          ? `where ${not ? 'nothing' : 'anything'} says`
          : `whose ${own} ${verbOf({ field, not, values })}`),
      after: '',
      not,
      many: 'values',
      tokens: values.map((value) => ({ label: labelOf(value), text: value, exact: null })),
      takes: null,
    };
  });

/** What lies between bounds or is blank is; words are said. */
function verbOf({ field, not, values }: RuleCondition): string {
  const is = values.every((value) => {
    const read = readValue(field, value);
    return 'kind' in read && (read.kind === 'blank' || read.kind === 'range');
  });
  return is ? (not ? 'is not' : 'is') : not ? 'does not say' : 'says';
}

const labelOf = (value: string): string =>
  value === BLANK
    ? 'blank'
    : value.startsWith('/') || !value.includes('..')
      ? value
      : value
          .replace(/^\.\.\s*/, 'up to ')
          .replace(/\s*\.\.$/, ' and up')
          .replace(/\s*\.\.\s*/, ' to ');

/** The values of what was typed: commas or “or” stand between them, never within a pattern. */
const valuesIn = (text: string): string[] => [
  ...new Set(
    (text.match(/\/(?:\\.|[^/])+\/|[^,/]+(?:\/[^,/]*)*/g) ?? [])
      .flatMap((part) => (part.trim().startsWith('/') ? [part] : part.split(/\s+or\s+/i)))
      .map((part) => part.trim())
      .filter(Boolean),
  ),
];

/** A rule after a change of its sentence; a text says what is wrong with the change. */
export function changed(
  rule: ScreenRule,
  change: SentenceChange,
  subjects: readonly RuleSubject[],
): ScreenRule | string {
  if (change.kind === 'type') {
    const condition = readCondition(change.text, rule, subjects);
    if (condition.values.length === 0) return 'Which words is missing: “title: driver, intern”.';
    return faultIn(condition) ?? { ...rule, conditions: [...rule.conditions, condition] };
  }
  const at = change.clause;
  const condition = rule.conditions[at]!;
  const { values } = condition;
  const next =
    change.kind === 'turn'
      ? { ...condition, not: !condition.not }
      : change.kind === 'remove'
        ? { ...condition, values: values.filter((_, i) => i !== change.token) }
        : change.kind === 'add'
          ? { ...condition, values: [...new Set([...values, ...valuesIn(change.text)])] }
          : change.kind === 'write'
            ? {
                ...condition,
                values: [
                  ...new Set(values.flatMap((value, i) => (i === change.token ? valuesIn(change.text) : [value]))),
                ],
              }
            : condition;
  const conditions =
    next.values.length === 0 ? rule.conditions.filter((_, i) => i !== at) : rule.conditions.with(at, next);
  return faultIn(next) ?? { ...rule, conditions };
}

function readCondition(text: string, { conditions }: ScreenRule, subjects: readonly RuleSubject[]): RuleCondition {
  const not = /^\s*not\s+/i.exec(text)?.[0] ?? '';
  const rest = text.slice(not.length).trim();
  const named = subjects
    .filter(({ key }) => rest.toLowerCase().startsWith(`${key}:`))
    .sort((a, b) => b.key.length - a.key.length)[0];
  const values = valuesIn(named ? rest.slice(named.key.length + 1) : rest);
  return { field: named?.field ?? conditions.at(-1)?.field ?? 'title', not: not !== '', values };
}

function faultIn({ field, values }: RuleCondition): string | null {
  for (const value of values) {
    const read = readValue(field, value);
    if ('fault' in read) return FAULTS[read.fault];
  }
  return null;
}

/** A rule in a few words. */
export const ruleWords = (rule: ScreenRule): string =>
  rule.conditions
    .map((condition) => {
      const label = condition.field.replace(/^own:/, '');
      const shown = condition.values.map(labelOf);
      const said = shown.length > 4 ? `${shown.slice(0, 3).join(', ')} and ${shown.length - 3} more` : shown.join(', ');
      return `${label[0]!.toUpperCase()}${label.slice(1)} ${verbOf(condition)} ${said}`;
    })
    .join(' and ');
