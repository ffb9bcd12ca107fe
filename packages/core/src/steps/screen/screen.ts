import { companyKey } from '../../company/company-key';
import type { Person } from '../../model/person';
import { callSuppressor, suppressor } from '../../suppression/suppression';
import { remembered } from '../../text/remembered';
import { titleReader } from '../../tidy/title-meaning';
import type { Env, Step, Stop } from '../step';
import { briefFit } from './brief';
import { covers, groupKey, groupValue, type Groups } from './groups';
import { screenOptions, type GroupBy, type ScreenOptions } from './options';
import { ruleTest, type Extra } from './rule-test';

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
    const notCalled = callSuppressor(env.suppression);
    return (contact, kept) => {
      const { extra, firmKey } = contact;
      if (options.suppression && notCalled(contact.person)) {
        contact.notCalled = true;
        contact.person = { ...contact.person, phone: '' };
      }
      return screened(contact.person, kept, extra, firmKey);
    };
  },
};

/** The screen of one person after the other. It remembers how many of each company have passed. */
export function screener(
  options: ScreenOptions,
  {
    suppression,
    elsewhere,
    lists,
    decisions,
  }: Pick<Env, 'suppression' | 'elsewhere' | 'lists'> & { decisions: { groups: Groups } },
): (p: Person, kept: boolean, extra?: Extra, firmKey?: string) => Stop | null {
  const rules = options.rules.map(ruleTest);
  const groups = [...decisions.groups].map(([by, fates]) => ({ by, fates, keyOf: remembered(groupKey) }));
  const fits = briefFit(options, titleReader(lists.titleWords));
  const suppressed = suppressor(suppression);
  const passed = new Map<string, number>();

  const aside = (code: string, why: Record<string, string | number> = {}): Stop => ({ state: 'aside', code, why });

  function stopOf(p: Person, extra: Extra): Stop | null {
    if (options.suppression) {
      const entry = suppressed(p);
      if (entry) return aside('suppressed', { entry: entry.value, because: entry.why });
    }
    const keptBy: GroupBy[] = [];
    for (const { by, fates, keyOf } of groups) {
      const value = groupValue(by, p, extra);
      const fate = value === '' ? undefined : fates.get(keyOf(value));
      if (fate === 'aside') return aside('group-aside', { field: by, value });
      if (fate === 'keep') keptBy.push(by);
    }
    const isKept = (field: string) => keptBy.some((by) => covers(by, field));
    for (const [rule, test] of rules.entries()) {
      const taken = test(p, extra);
      if (!taken) continue;
      const { code, field, word } = taken;
      const isSpared = options.rules[rule]!.fate === 'aside' && code !== 'rule-blank' && isKept(field);
      if (!isSpared) return aside(code, { rule, field, ...(word !== '' && { word }) });
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
    if (held === 'pass') return null;
    const { surely, likely } = known.held();
    if (surely.length > 0) return { state: held, code: 'held-elsewhere', why: { jobs: surely.join(', ') } };
    if (!likely) return null;
    const jobs = likely.jobs.join(', ');
    const { chance } = likely;
    if (chance === null) return { state: 'look', code: 'alike-elsewhere', why: { jobs } };
    return { state: 'look', code: 'likely-elsewhere', why: { jobs, percent: Math.floor(chance * 100) } };
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
