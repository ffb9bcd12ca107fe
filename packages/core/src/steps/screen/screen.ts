import { PASSED, type Fate } from '../../model/fate';
import { fullName, type Person } from '../../model/person';
import type { OptionsOf, RuleField } from '../../model/step';
import { fold } from '../../text/fold';
import { remembered } from '../../text/remembered';
import { FITS, NEAR, titleFit, type TitleFit } from './fit';
import { wordFinder } from './words';

export interface Suppression {
  emails: ReadonlySet<string>;
  domains: ReadonlySet<string>;
}

/** What a person said of whole groups of titles: title key to fate. */
export type TitleGroups = ReadonlyMap<string, 'keep' | 'aside'>;

/** Titles that count as one group: the same letters. */
export const titleKey = (title: string): string => fold(title);

/** Contacts of one company, for counting: its domain, else its folded name. */
export const companyKey = (p: Pick<Person, 'domain' | 'company'>): string => p.domain || fold(p.company);

const TEXT: Record<RuleField, (p: Person) => string> = {
  any: (p) => [fullName(p), p.title, p.company, p.city, p.region, p.country, p.domain, p.email, p.note].join('\n'),
  name: fullName,
  title: (p) => p.title,
  company: (p) => `${p.company} ${p.legalForm}`,
  place: (p) => `${p.city}\n${p.region}\n${p.country}`,
  domain: (p) => p.domain,
  email: (p) => p.email,
  note: (p) => p.note,
};

/**
 * The screen as a function from a contact to its fate. It remembers how many of each company have passed, so contacts
 * are given in order and each once.
 */
export function screener(
  options: OptionsOf<'screen'>,
  suppression: Suppression,
  groups: TitleGroups,
): (p: Person, kept: boolean) => Fate {
  const rules = options.rules.map((rule, i) => ({
    ...rule,
    number: i,
    text: TEXT[rule.field],
    // Titles come again and again.
    find: rule.field === 'title' ? remembered(wordFinder(rule.words)) : wordFinder(rule.words),
  }));
  const keyOf = remembered(titleKey);
  const fitOf = remembered((title): TitleFit => titleFit(title, options.briefTitles));
  const passed = new Map<string, number>();

  const aside = (code: Fate['code'], why: Fate['why'] = {}): Fate => ({ step: 'screen', state: 'aside', code, why });

  function fateOf(p: Person): Fate {
    if (options.suppression) {
      const domain = p.email.slice(p.email.indexOf('@') + 1);
      if (suppression.emails.has(p.email)) return aside('suppressed', { entry: p.email });
      const entry = [p.domain, domain].find((d) => d !== '' && suppression.domains.has(d));
      if (entry) return aside('suppressed', { entry });
    }
    const group = groups.get(keyOf(p.title));
    if (group === 'aside') return aside('title-group', { title: p.title });
    for (const rule of rules) {
      const word = rule.find(rule.text(p));
      if (rule.fate === 'aside' && word !== '' && !(group === 'keep' && rule.field === 'title')) {
        return aside('rule-words', { rule: rule.number, field: rule.field, word });
      }
      if (rule.fate === 'keep' && word === '') return aside('rule-lacks', { rule: rule.number, field: rule.field });
    }
    if (options.briefTitles.length > 0 && group !== 'keep') {
      const fit = fitOf(p.title);
      const why = { title: p.title, near: fit.near, fit: Math.round(fit.fit * 100) / 100 };
      if (fit.fit < NEAR) return aside('title-not-in-brief', why);
      if (fit.fit < FITS) return { step: 'screen', state: 'look', code: 'title-near-brief', why };
    }
    return PASSED;
  }

  return (p, kept) => {
    const fate = kept ? PASSED : fateOf(p);
    if (fate.state !== 'pass' || options.atMostPerCompany === 0) return fate;
    const company = companyKey(p);
    if (company === '') return fate;
    const n = (passed.get(company) ?? 0) + 1;
    if (n > options.atMostPerCompany && !kept)
      return aside('company-full', { company: p.company || company, most: options.atMostPerCompany });
    passed.set(company, n);
    return fate;
  };
}
