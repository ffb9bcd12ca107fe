import type { Person } from '../../model/person';
import { fullName } from '../../model/person';
import { suppressor } from '../../suppression/suppression';
import { fold } from '../../text/fold';
import { ownValue } from '../../text/own-value';
import { remembered } from '../../text/remembered';
import { titleReader } from '../../tidy/title-meaning';
import type { Env, Step, Stop } from '../step';
import { briefFit } from './brief';
import {
  RULE_FIELDS,
  screenOptions,
  type RangeRule,
  type RuleField,
  type ScreenOptions,
  type WordRule,
} from './options';
import { wordFinder } from './words';

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
    return ({ person, extra }, kept) => screened(person, kept, extra);
  },
};

/** Titles that count as one group: the same letters. */
export const titleKey = (title: string): string => fold(title);

/** Contacts of one company, for counting: its domain, else its folded name. */
export const companyKey = (p: Pick<Person, 'domain' | 'company'>): string => p.domain || fold(p.company);

const TEXT: Record<RuleField, (p: Person) => string> = {
  any: (p) =>
    [fullName(p), p.title, p.company, p.city, p.postcode, p.region, p.country, p.domain, p.email, p.note].join('\n'),
  name: fullName,
  title: (p) => p.title,
  company: (p) => `${p.company} ${p.legalForm}`,
  place: (p) => `${p.city}\n${p.postcode}\n${p.region}\n${p.country}`,
  domain: (p) => p.domain,
  email: (p) => p.email,
  note: (p) => p.note,
};

const ownOf = (field: string, extra: Record<string, string>): string => {
  const name = field.slice('own:'.length);
  return Object.hasOwn(extra, name) ? extra[name]! : '';
};

/** What of somebody a rule is about: the word, or the value in its range; '' for nothing. */
function finderOf(rule: WordRule | RangeRule): (p: Person, extra: Record<string, string>) => string {
  if ('words' in rule) {
    const { field } = rule;
    const find = wordFinder(rule.words);
    if (!isRuleField(field)) return (_, extra) => find(ownOf(field, extra));
    // Titles come again and again.
    const kept = field === 'title' ? remembered(find) : find;
    return (p) => kept(TEXT[field](p));
  }
  const { field, type, from, to } = rule;
  const isBefore = (a: string, b: string) => (type === 'number' ? Number(a) < Number(b) : a < b);
  return (_, extra) => {
    const value = ownOf(field, extra);
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
    lists,
    decisions: { titleGroups },
  }: Pick<Env, 'suppression' | 'lists'> & { decisions: Pick<Env['decisions'], 'titleGroups'> },
): (p: Person, kept: boolean, extra?: Record<string, string>) => Stop | null {
  const rules = options.rules.map((rule, number) => ({ ...rule, number, find: finderOf(rule) }));
  const keyOf = remembered(titleKey);
  const fits = briefFit(options, titleReader(lists.titleWords));
  const suppressed = suppressor(suppression);
  const passed = new Map<string, number>();

  const aside = (code: string, why: Record<string, string | number> = {}): Stop => ({ state: 'aside', code, why });

  function stopOf(p: Person, extra: Record<string, string>): Stop | null {
    if (options.suppression) {
      const entry = suppressed(p);
      if (entry) return aside('suppressed', { entry: entry.value, because: entry.why });
    }
    const group = titleGroups.get(keyOf(p.title));
    if (group === 'aside') return aside('title-group', { title: p.title });
    for (const rule of rules) {
      const word = rule.find(p, extra);
      if (rule.fate === 'aside' && word !== '' && !(group === 'keep' && rule.field === 'title')) {
        return aside('rule-words', { rule: rule.number, field: rule.field, word });
      }
      if (rule.fate === 'keep' && word === '') return aside('rule-lacks', { rule: rule.number, field: rule.field });
    }
    const misfit = fits(p, group === 'keep');
    return misfit && { state: misfit.look ? 'look' : 'aside', code: misfit.code, why: misfit.why };
  }

  return (p, kept, extra = {}) => {
    const stop = kept ? null : stopOf(p, extra);
    const company = options.atMostPerCompany === 0 || stop ? '' : companyKey(p);
    if (company === '') return stop;
    const n = (passed.get(company) ?? 0) + 1;
    if (n > options.atMostPerCompany && !kept)
      return aside('company-full', { company: p.company || company, most: options.atMostPerCompany });
    passed.set(company, n);
    return null;
  };
}
