import type { Facts, Wanted } from '../../facts/facts';
import type { FirmCandidate } from '../../facts/firms';
import type { Person } from '../../model/person';
import { parseCompany } from '../../tidy/company-name';
import { canonicalLink } from '../../tidy/link';
import { fold } from '../../text/fold';
import { jaroWinkler } from '../../text/jaro-winkler';
import { isParked } from './parked';

/** A domain that could be a company's, and how likely it is. */
export interface Candidate {
  domain: string;
  name: string;
  sure: number;
  /** Who knew it: the id of a service, or `DIRECTORY`. */
  by: string;
}

/** Chances that a company of the same name is the one, by what else agrees. Common practice, no source. */
const NAME_ONLY = 0.75;
const SAME_CITY = 0.97;
const SAME_COUNTRY = 0.85;
const OTHER_COUNTRY = 0.2;
const OTHER_CITY = 0.6;
/** Names less alike are others'. */
const LEAST_ALIKE = 0.9;
/** So many are looked at. */
const MOST = 3;

/**
 * The domain of a company that is known by its name: what services and the directory know by that name, weighed together by name and place; those
 * that nobody holds, or that are for sale, are passed over.
 */
export function findDomain(
  person: Pick<Person, 'company' | 'city' | 'country'>,
  services: readonly string[],
  facts: Facts,
): { found: Candidate | null } | Wanted {
  const { company: name, city, country } = person;
  const firms: KnownFirm[] = [];
  for (const service of services) {
    const search = facts({ kind: 'firm-search', service, name, city, country });
    if (!search.fact) return search;
    firms.push(...search.fact.answer.firms.map((firm) => ({ ...firm, by: service })));
  }
  const weighed = weighFirms(person, firms).slice(0, MOST);
  for (const candidate of weighed) {
    const site = facts({ kind: 'website', domain: candidate.domain });
    if (!site.fact) return site;
    const { answer } = site.fact;
    if (answer.state === 'no-domain' || (answer.state === 'read' && isParked(answer.pages))) continue;
    return { found: candidate };
  }
  return { found: null };
}

type KnownFirm = FirmCandidate & { by: string };

/** Companies that a name may stand for, each domain once, the likeliest first; those that are as likely share what there is. */
export function weighFirms(
  { company, city, country }: Pick<Person, 'company' | 'city' | 'country'>,
  firms: readonly KnownFirm[],
): Candidate[] {
  const own = fold(parseCompany(company).name);
  const each = firms.flatMap((firm): Candidate[] => {
    const name = parseCompany(firm.name).name;
    const alike = jaroWinkler(own, fold(name), LEAST_ALIKE);
    const domain = canonicalLink(firm.domain);
    if (alike < LEAST_ALIKE || domain === '') return [];
    const isAbroad = country !== '' && firm.country !== '' && country !== firm.country;
    const known = city !== '' && firm.city !== '';
    const place = isAbroad
      ? OTHER_COUNTRY
      : known
        ? fold(city) === fold(firm.city)
          ? SAME_CITY
          : OTHER_CITY
        : country !== '' && country === firm.country
          ? SAME_COUNTRY
          : NAME_ONLY;
    return [{ domain, name, sure: place * (alike === 1 ? 1 : alike - 0.1), by: firm.by }];
  });
  const likeliest = [...each].sort((a, b) => b.sure - a.sure);
  const all = likeliest.filter((one, i) => likeliest.findIndex(({ domain }) => domain === one.domain) === i);
  const odds = (sure: number) => sure / (1 - sure);
  const sum = all.reduce((total, { sure }) => total + odds(sure), 0);
  return all.map((one) => ({ ...one, sure: Math.min(one.sure, odds(one.sure) / sum) })).sort((a, b) => b.sure - a.sure);
}
