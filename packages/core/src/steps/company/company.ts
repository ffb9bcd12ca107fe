import type { Facts, Wanted } from '../../facts/facts';
import { DIRECTORY, type FirmRecord } from '../../facts/firms';
import type { Contact } from '../../model/contact';
import { NOTHING_KNOWN } from '../../model/firm';
import type { PersonField } from '../../model/person';
import { isHost } from '../../tidy/link';
import { waiting, type Step } from '../step';
import { answersTo, askSites } from './ask-site';
import { findDomain } from './find-domain';
import { firmRules } from './firm-rules';
import { likeSites } from './like-sites';
import { companyOptions, type CompanyOptions } from './options';

/** A domain that is less likely a company's is not taken, but offered for judging; one less likely still is not worth a look. */
const TAKE_FROM = 0.7;
const OFFER_FROM = 0.3;

/** What is known of the company of each contact: its domain, what its own website answers, what is bought of it; and rules over that. */
export const company: Step<CompanyOptions> = {
  kind: 'company',
  options: companyOptions,
  about: 'contact',
  after: ['match'],
  optional: true,
  startsOff: true,
  asks: true,
  prepare: (all, options, { facts, decisions }) => {
    const { findBy, findInDirectory, question, detailsBy, topicsBy } = options;
    const knowing = [...(findInDirectory ? [DIRECTORY] : []), ...(findBy === '' ? [] : [findBy])];
    const sites = askSites(options, facts, answersTo(question, decisions));
    const breaks = firmRules(options);
    const domains = all.map(({ person }) => person.domain);
    const likeCompetitor = competitorLike(options, domains, facts);
    return (contact, kept) => {
      contact.firm = NOTHING_KNOWN;
      if (contact.person.domain === '' && contact.person.company !== '' && knowing.length > 0) {
        const search = findDomain(contact.person, knowing, facts);
        if ('ask' in search) return waiting(search);
        const { sure = 0, domain = '', name = '', by = '' } = search.found ?? {};
        if (sure >= TAKE_FROM) fill(contact, by, { domain }, sure);
        else if (sure >= OFFER_FROM && !kept)
          return { state: 'look', code: 'domain-doubtful', why: { domain, name, chance: Math.round(sure * 100) } };
      }
      const { domain } = contact.person;
      // What costs nothing is known before anything is bought.
      const broken = () => {
        const rule = breaks(contact.person, contact.firm!);
        return rule && { state: 'aside' as const, code: rule.code, why: { is: rule.is } };
      };
      if (!kept && broken()) return broken();
      const like = kept ? null : likeCompetitor(domain);
      if (like && 'ask' in like) return waiting(like);
      if (like) return { state: 'aside', code: 'like-competitor', why: { is: like.domain, percent: like.percent } };
      if (question !== '') {
        if (domain === '') return { state: 'look', code: 'website-unknown' };
        const site = sites.ask(domain);
        if ('ask' in site) return waiting(site);
        const { answer, yes, by, unasked } = site;
        contact.firm = { ...NOTHING_KNOWN, answer, yes, by };
        if (answer === '' && !kept) return { state: 'look', code: `website-${unasked}` };
        if (answer === 'no' && !kept) return { state: 'aside', code: 'website-says-no' };
        if (answer === 'unclear' && !kept) return { state: 'look', code: 'website-unclear' };
      }
      if (domain === '') return null;
      const bought = detailsBy === '' ? null : buyDetails(domain, detailsBy, facts);
      if (bought && 'ask' in bought) return waiting(bought);
      if (bought) {
        const { sector, headcount, city, region, country, growth, technology, hiring } = bought;
        fill(contact, detailsBy, { sector, headcount: headcount === null ? '' : String(headcount) });
        if (![contact.person.city, contact.person.region, contact.person.country].some((place) => place !== ''))
          fill(contact, detailsBy, { city, region, country });
        contact.firm = { ...contact.firm, growth, technology, hiring };
      }
      if (topicsBy === '' || (!kept && broken())) return broken();
      const topics = buyTopics(domain, topicsBy, facts);
      if ('ask' in topics) return waiting(topics);
      contact.firm = { ...contact.firm, topics };
      return broken();
    };
  },
};

/**
 * Finds the competitor that a company's website reads too much like.
 *
 * @param all domains of the companies of the job
 */
export function competitorLike(
  { competitors, likeCompetitors }: Pick<CompanyOptions, 'competitors' | 'likeCompetitors'>,
  all: readonly string[],
  facts: Facts,
): (domain: string) => { domain: string; percent: number } | Wanted | null {
  const those = likeCompetitors === 0 ? [] : competitors.map((one) => one.toLowerCase()).filter(isHost);
  const likeOf = likeSites(those, all, facts);
  return (domain) => {
    const found = likeOf(domain);
    if ('ask' in found) return found;
    const { like } = found;
    return like && like.share >= likeCompetitors
      ? { domain: like.domain, percent: Math.round(like.share * 100) }
      : null;
  };
}

/** What a service knows of a company; null when it knows nothing. */
export function buyDetails(domain: string, service: string, facts: Facts): FirmRecord | Wanted | null {
  const offer = facts({ kind: 'firm-offer', service, domain });
  if (!offer.fact) return offer;
  const { record, priceCents } = offer.fact.answer;
  if (record === null) return null;
  const bought = facts({ kind: 'firm-record', service, record, priceCents });
  return bought.fact ? bought.fact.answer : bought;
}

/** What the people of a company read about this week. */
export function buyTopics(domain: string, service: string, facts: Facts): readonly string[] | Wanted {
  const offer = facts({ kind: 'topic-offer', service, domain });
  if (!offer.fact) return offer;
  const { record, priceCents } = offer.fact.answer;
  if (record === null) return [];
  const bought = facts({ kind: 'topic-record', service, record, priceCents });
  return bought.fact ? bought.fact.answer.topics : bought;
}

/** Gives a contact what it lacks. */
function fill(contact: Contact, via: string, values: Partial<Record<PersonField, string>>, sure?: number) {
  for (const [field, value] of Object.entries(values) as [PersonField, string][]) {
    if (value === '' || contact.person[field] !== '') continue;
    contact.person = { ...contact.person, [field]: value };
    contact.added = { ...contact.added, [field]: { via, alternatives: [], ...(sure !== undefined && { sure }) } };
  }
}
