import { fullName, type Person } from '../../model/person';
import { headcountRange } from '../../text/headcount';
import { ownValue } from '../../text/own-value';
import { remembered } from '../../text/remembered';
import { wordFinder } from '../../text/word-finder';
import {
  BLANK,
  readValue,
  RULE_FIELDS,
  type RuleCondition,
  type RuleField,
  type RuleValue,
  type ScreenRule,
} from './rules';

/** Fields of the person's own, by name. */
export type Extra = Record<string, string>;

/** Why a rule took somebody: the condition that decided, and what its field said ('' for nothing). */
export interface Decided {
  field: string;
  word: string;
  code: 'rule-words' | 'rule-lacks' | 'rule-blank' | 'rule-met';
}

const TEXT: Record<RuleField, (p: Person) => string> = {
  any: (p) =>
    [fullName(p), p.title, p.company, p.city, p.postcode, p.region, p.country, p.domain, p.email, p.note].join('\n'),
  name: fullName,
  title: (p) => p.title,
  level: (p) => p.level,
  team: (p) => p.team,
  company: (p) => `${p.company} ${p.legalForm}`,
  sector: (p) => p.sector,
  headcount: (p) => p.headcount,
  place: (p) => `${p.city}\n${p.postcode}\n${p.region}\n${p.country}`,
  domain: (p) => p.domain,
  email: (p) => p.email,
  phone: (p) => p.phone,
  profile: (p) => p.profile,
  note: (p) => p.note,
};
/** Fields whose values come again and again. */
const COMMON: ReadonlySet<string> = new Set(['title', 'level', 'team', 'company', 'sector', 'place', 'domain']);

const isRuleField = (field: string): field is RuleField => RULE_FIELDS.some((known) => known === field);

/** What of a text a condition asks for; '' where it is not there. */
type Find = (text: string) => string;

/** @returns why a rule takes a person, or null where it leaves them */
export function ruleTest({ conditions, fate }: ScreenRule): (p: Person, extra: Extra) => Decided | null {
  const tests = conditions.map((condition) => {
    const find = finderOf(condition);
    const textOf = textOfField(condition.field);
    return { condition, find: (p: Person, extra: Extra) => find(textOf(p, extra)) };
  });
  return (p, extra) => {
    let said: Decided | null = null;
    for (const { condition, find } of tests) {
      const word = find(p, extra);
      const holds = (word !== '') !== condition.not;
      if (!holds) return fate === 'keep' ? decidedBy(condition, word) : null;
      if (fate === 'aside' && (said === null || (said.code === 'rule-lacks' && word !== '')))
        said = decidedBy(condition, word);
    }
    return said?.code === 'rule-words' && tests.length > 1 ? { ...said, code: 'rule-met' } : said;
  };
}

function decidedBy({ field, values }: RuleCondition, word: string): Decided {
  if (values.every((value) => value === BLANK))
    return { field, word: word === '' ? 'filled' : 'blank', code: 'rule-blank' };
  return { field, word, code: word === '' ? 'rule-lacks' : 'rule-words' };
}

/** The text of a field of the person's own. */
export function ownText(field: string, extra: Extra): string {
  const name = field.slice('own:'.length);
  return Object.hasOwn(extra, name) ? extra[name]! : '';
}

const textOfField = (field: string): ((p: Person, extra: Extra) => string) =>
  isRuleField(field) ? TEXT[field] : (_, extra) => ownText(field, extra);

function finderOf({ field, values }: RuleCondition): Find {
  const read = values.map((value) => readValue(field, value));
  const words = read.flatMap((one) => ('kind' in one && one.kind === 'words' ? [one.text] : []));
  const finds: Find[] = read.flatMap((one) => ('kind' in one ? otherFind(field, one) : []));
  const find: Find = (text) => {
    const word = findWord(text);
    if (word !== '') return word;
    for (const other of finds) {
      const found = other(text);
      if (found !== '') return found;
    }
    return '';
  };
  const findWord = wordFinder(words);
  return COMMON.has(field) || values.some((value) => value.includes('..')) ? remembered(find) : find;
}

function otherFind(field: string, value: RuleValue): Find[] {
  if (value.kind === 'blank') return [(text) => (text.trim() === '' ? BLANK : '')];
  if (value.kind === 'range') return [rangeFind(field, value)];
  if (value.kind === 'words') return [];
  const pattern = new RegExp(value.source, 'iu');
  return [(text) => pattern.exec(text)?.[0] ?? ''];
}

/** The value itself where it lies in a range. A headcount that is a band lies where it may. */
function rangeFind(field: string, { type, from, to }: RuleValue & { kind: 'range' }): Find {
  const isBefore = (a: string, b: string) => (type === 'number' ? Number(a) < Number(b) : a < b);
  return (value) => {
    if (field === 'headcount') {
      const people = headcountRange(value);
      const lies = people && (from === '' || people.to >= Number(from)) && (to === '' || people.from <= Number(to));
      return lies ? value : '';
    }
    // What is not of its type lies in no range.
    if (value === '' || ownValue(type, value) !== value) return '';
    return (from !== '' && isBefore(value, from)) || (to !== '' && isBefore(to, value)) ? '' : value;
  };
}
