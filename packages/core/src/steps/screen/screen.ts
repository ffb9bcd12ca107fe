import { companyKey } from '../../company/company-key';
import type { Person } from '../../model/person';
import { fullName } from '../../model/person';
import { suppressor } from '../../suppression/suppression';
import { headcountRange } from '../../text/headcount';
import { ownValue } from '../../text/own-value';
import { remembered } from '../../text/remembered';
import { titleReader } from '../../tidy/title-meaning';
import type { Env, Step, Stop } from '../step';
import { briefFit } from './brief';
import { covers, groupKey, type Groups } from './groups';
import {
  RULE_FIELDS,
  screenOptions,
  type GroupField,
  type RangeRule,
  type RuleField,
  type ScreenOptions,
} from './options';
import { wordFinder } from '../../text/word-finder';

/** Sets aside who does not fit: suppressed, by title group, by rule, by the brief's titles, over the limit of a company. */
export const screen: Step<ScreenOptions> = {
  kind: 'screen',
  options: screenOptions,
  about: 'contact',
  after: ['match'],
  optional: true,
  asks: false,
  prepare: (_all, options, env) => {
    const screened = screener(options, env);
    return ({ person, extra, firmKey }, kept) => screened(person, kept, extra, firmKey);
  },
};

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

const ownOf = (field: string, extra: Record<string, string>): string => {
  const name = field.slice('own:'.length);
  return Object.hasOwn(extra, name) ? extra[name]! : '';
};

type Extra = Record<string, string>;
/** Fields whose values come again and again. */
const COMMON: ReadonlySet<string> = new Set(['title', 'level', 'team', 'company', 'sector', 'place', 'domain']);

/** What of somebody a rule is about: the word, or the value in its range; '' for nothing. */
function finderOf(rule: ScreenOptions['rules'][number]): (p: Person, extra: Extra) => string {
  const { field } = rule;
  const valueOf = isRuleField(field) ? TEXT[field] : (_: Person, extra: Extra) => ownOf(field, extra);
  if ('is' in rule) return (p, extra) => ((valueOf(p, extra).trim() === '') === (rule.is === 'blank') ? rule.is : '');
  if ('words' in rule) {
    const find = COMMON.has(field) ? remembered(wordFinder(rule.words)) : wordFinder(rule.words);
    return (p, extra) => find(valueOf(p, extra));
  }
  const lies = remembered(rangeTest(rule));
  return (p, extra) => lies(valueOf(p, extra));
}

/** The value itself where it lies in a range, else ''. */
function rangeTest({ field, type, from, to }: RangeRule): (value: string) => string {
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

const isRuleField = (field: string): field is RuleField => RULE_FIELDS.some((known) => known === field);

/** The screen of one person after the other. It remembers how many of each company have passed. */
export function screener(
  options: ScreenOptions,
  {
    suppression,
    elsewhere,
    lists,
    decisions,
  }: Pick<Env, 'suppression' | 'elsewhere' | 'lists'> & { decisions: { groups: Groups } },
): (p: Person, kept: boolean, extra?: Record<string, string>, firmKey?: string) => Stop | null {
  const rules = options.rules.map((rule, number) => ({ ...rule, number, find: finderOf(rule) }));
  const groups = [...decisions.groups].map(([by, fates]) => ({ by, fates, keyOf: remembered(groupKey) }));
  const fits = briefFit(options, titleReader(lists.titleWords));
  const suppressed = suppressor(suppression);
  const passed = new Map<string, number>();

  const aside = (code: string, why: Record<string, string | number> = {}): Stop => ({ state: 'aside', code, why });

  function stopOf(p: Person, extra: Record<string, string>): Stop | null {
    if (options.suppression) {
      const entry = suppressed(p);
      if (entry) return aside('suppressed', { entry: entry.value, because: entry.why });
    }
    const keptBy: GroupField[] = [];
    for (const { by, fates, keyOf } of groups) {
      const fate = p[by] === '' ? undefined : fates.get(keyOf(p[by]));
      if (fate === 'aside') return aside('group-aside', { field: by, value: p[by] });
      if (fate === 'keep') keptBy.push(by);
    }
    const isKept = (field: string) => keptBy.some((by) => covers(by, field));
    for (const { find, fate, number, field, ...rule } of rules) {
      const word = find(p, extra);
      const about = { rule: number, field };
      if ('is' in rule) {
        const other = rule.is === 'blank' ? 'filled' : 'blank';
        if ((fate === 'aside') === (word !== '')) return aside('rule-blank', { ...about, word: word || other });
      } else if (fate === 'keep' && word === '') return aside('rule-lacks', about);
      else if (fate === 'aside' && word !== '' && !isKept(field)) return aside('rule-words', { ...about, word });
    }
    const misfit = fits(p, isKept);
    if (!misfit) return knownElsewhere(p);
    return { state: misfit.look ? 'look' : 'aside', code: misfit.code, why: misfit.why };
  }

  /** Looked at last: it asks the register. */
  function knownElsewhere(p: Person): Stop | null {
    const { heldElsewhere: held, leftElsewhere: left } = options;
    if (held === 'pass' && left === 'pass') return null;
    const known = elsewhere(p);
    if (left !== 'pass' && known.left.length > 0)
      return { state: left, code: 'left-elsewhere', why: { jobs: known.left.join(', ') } };
    if (held !== 'pass' && known.held.length > 0)
      return { state: held, code: 'held-elsewhere', why: { jobs: known.held.join(', ') } };
    return null;
  }

  return (p, kept, extra = {}, firmKey = '') => {
    const stop = kept ? null : stopOf(p, extra);
    const company = options.atMostPerCompany === 0 || stop ? '' : firmKey || companyKey(p);
    if (company === '') return stop;
    const n = (passed.get(company) ?? 0) + 1;
    if (n > options.atMostPerCompany && !kept)
      return aside('company-full', { company: p.company || company, most: options.atMostPerCompany });
    passed.set(company, n);
    return null;
  };
}

/** How many of those who come to the screen pass it, and how many each of its rules takes, as they are looked at in order. */
export function screenCounts(
  options: ScreenOptions,
  env: Parameters<typeof screener>[1],
  came: Iterable<{ person: Person; extra: Extra; firmKey: string; kept: boolean }>,
): { came: number; pass: number; rules: number[] } {
  const screened = screener(options, env);
  const out = { came: 0, pass: 0, rules: options.rules.map(() => 0) };
  for (const { person, extra, firmKey, kept } of came) {
    const stop = screened(person, kept, extra, firmKey);
    out.came++;
    if (!stop) out.pass++;
    else if ('why' in stop && typeof stop.why?.['rule'] === 'number') out.rules[stop.why['rule']]!++;
  }
  return out;
}
