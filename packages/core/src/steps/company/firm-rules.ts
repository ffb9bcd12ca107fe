import type { Firm } from '../../model/firm';
import type { Person } from '../../model/person';
import { fold } from '../../text/fold';
import { headcountRange } from '../../text/headcount';
import { remembered } from '../../text/remembered';
import { wordFinder } from '../../text/word-finder';
import type { CompanyOptions } from './options';

/** Why a company is not wanted. */
export const FIRM_RULES = [
  'competitor',
  'company-sector-out',
  'company-sector',
  'company-headcount',
  'company-growth',
  'company-place',
  'company-technology',
  'company-hiring',
  'company-topics',
] as const;
export type FirmRule = (typeof FIRM_RULES)[number];

type Known = Pick<Person, 'company' | 'domain' | 'sector' | 'headcount' | 'city' | 'region' | 'country'>;

/** The first rule that a company breaks, and by what; null for none. What is not known of it breaks no rule. */
export function firmRules(
  options: CompanyOptions,
): (person: Known, firm: Firm) => { code: FirmRule; is: string } | null {
  const { headcountFrom, headcountTo, growthFrom, growthTo } = options;
  const competitors = new Set(options.competitors.map(fold));
  const places = new Set(options.places.map(fold));
  const [sector, notSector] = [options.sectors, options.notSectors].map((words) => remembered(wordFinder(words)));
  const [technology, hiring, topic] = [options.technology, options.hiring, options.topics].map((words) =>
    remembered(wordFinder(words)),
  );
  const range = remembered(headcountRange);
  const none = (list: readonly string[], wanted: readonly string[], find: (text: string) => string) =>
    wanted.length > 0 && list.length > 0 && !list.some((one) => find(one) !== '') ? list.join(', ') : '';

  const checks: Record<FirmRule, (person: Known, firm: Firm) => string> = {
    competitor: ({ company, domain }) =>
      competitors.size === 0
        ? ''
        : domain !== '' && competitors.has(fold(domain))
          ? domain
          : company !== '' && competitors.has(fold(company))
            ? company
            : '',
    'company-sector-out': (person) => notSector!(person.sector),
    'company-sector': (person) => (options.sectors.length > 0 && sector!(person.sector) === '' ? person.sector : ''),
    'company-headcount': ({ headcount }) => {
      const people = range(headcount);
      const fits = !people || (people.to >= headcountFrom && (headcountTo === 0 || people.from <= headcountTo));
      return fits ? '' : headcount;
    },
    'company-growth': (_, { growth }) =>
      growth === null || (growth >= (growthFrom ?? -Infinity) && growth <= (growthTo ?? Infinity)) ? '' : `${growth} %`,
    'company-place': ({ city, region, country }) => {
      const known = [city, region, country].filter((place) => place !== '');
      return places.size === 0 || known.some((place) => places.has(fold(place))) ? '' : known.join(', ');
    },
    'company-technology': (_, firm) => none(firm.technology, options.technology, technology!),
    'company-hiring': (_, firm) => none(firm.hiring, options.hiring, hiring!),
    // That nobody reads about anything is known, too.
    'company-topics': (_, { topics }) =>
      topics && options.topics.length > 0 && !topics.some((one) => topic!(one) !== '')
        ? topics.join(', ') || 'nothing'
        : '',
  };
  return (person, firm) => {
    for (const code of FIRM_RULES) {
      const is = checks[code](person, firm);
      if (is !== '') return { code, is };
    }
    return null;
  };
}
