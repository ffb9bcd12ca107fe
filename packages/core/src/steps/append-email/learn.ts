import { NONE_MADE, type MadeAt } from '../../model/made';
import type { Person } from '../../model/person';
import { isFreeMail } from '../../words/mail';
import type { Named } from './name-ways';
import { howMade, isCut, PATTERNS, usualShare, type Cut, type Made, type Pattern } from './patterns';

/** Whose address it is. */
export type AddressOwner = Named & Pick<Person, 'country' | 'headcount'>;

const EVERYWHERE = 'everywhere';
const groupsOf = ({ country, headcount }: Pick<Person, 'country' | 'headcount'>): string[] => [
  ...(country === '' ? [] : [`country ${country}`]),
  ...(headcount === '' ? [] : [`size ${headcount}`]),
];
const domainOf = (email: string) => email.slice(email.lastIndexOf('@') + 1);

/** The places at which an address counts, and how it was made; at a provider of free mailboxes it says nothing of how firms do it. */
export function countedAt(email: string, owner: AddressOwner): { places: string[]; made: Made } {
  const domain = domainOf(email);
  const wider = isFreeMail(domain, []) ? [] : [...groupsOf(owner), EVERYWHERE];
  return { places: [domain, ...wider], made: howMade(email, owner) };
}

/** What the known addresses say about how each domain makes them. */
export interface Patterns {
  /** Counts an address that came with the records: for its domain, its country, its size, and for how firms do it in general. */
  learn(email: string, owner: AddressOwner): void;
  /** Counts an address that was found, for its domain only, so that the order of domains does not matter. */
  learnHere(email: string, owner: AddressOwner): void;
  /** Takes back what an address taught. */
  unlearn(email: string, owner: AddressOwner): void;
  /** Patterns of a domain from the most to the least likely, with their shares; what no pattern makes is left out. `seen`: at this domain. */
  ranked(
    domain: string,
    owner?: Pick<Person, 'country' | 'headcount'>,
  ): { pattern: Pattern; share: number; seen: number }[];
}

/** How many known addresses what is usual at the next wider place weighs as much as. */
const PRIOR_ALL = 50;
const PRIOR_GROUP = 20;
const PRIOR_DOMAIN = 1.5;

/** A cut that others make more seldom is tried only where it was seen. */
const USUAL_CUT = 0.01;

/** Learns how addresses are made, by domain, and where little is known there by country and size, and in general. */
export function learningPatterns(elsewhere: MadeAt = NONE_MADE): Patterns {
  const counts = new Map<string, Map<Made, number>>();
  const add = (place: string, made: Made, n: number) => {
    let here = counts.get(place);
    if (!here) counts.set(place, (here = new Map<Made, number>()));
    here.set(made, (here.get(made) ?? 0) + n);
    if (place === EVERYWHERE) usualCuts = null;
  };
  const cutsAt = (place: string): Cut[] =>
    [...new Set([...(counts.get(place)?.keys() ?? []), ...elsewhere(place).keys()])].filter(isCut);
  /** Those that are made often enough to be tried where nothing is known. */
  let usualCuts: Cut[] | null = null;
  const cutsFor = (domain: string): Cut[] => {
    const { of, total } = seenAt(EVERYWHERE);
    usualCuts ??= cutsAt(EVERYWHERE).filter((cut) => of(cut) >= USUAL_CUT * (total + PRIOR_ALL));
    const own = cutsAt(domain);
    return own.length === 0 ? usualCuts : [...new Set([...own, ...usualCuts])];
  };
  const seenAt = (place: string) => {
    const [here, there] = [counts.get(place), elsewhere(place)];
    const of = (made: Made) => (here?.get(made) ?? 0) + (there.get(made) ?? 0);
    return { of, total: sum(here?.values()) + sum(there.values()) };
  };
  const count = (email: string, owner: AddressOwner, n: number) => {
    const { places, made } = countedAt(email, owner);
    for (const place of places) add(place, made, n);
  };
  return {
    learn: (email, owner) => count(email, owner, 1),
    unlearn: (email, owner) => count(email, owner, -1),
    learnHere: (email, owner) => add(domainOf(email), howMade(email, owner), 1),
    ranked(domain, owner) {
      const here = seenAt(domain);
      const all = seenAt(EVERYWHERE);
      const groups = owner ? groupsOf(owner).map(seenAt) : [];
      return [...PATTERNS, ...cutsFor(domain)]
        .map((pattern) => {
          const usual = (all.of(pattern) + PRIOR_ALL * usualShare(pattern)) / (all.total + PRIOR_ALL);
          const inGroups = groups.map(({ of, total }) => (of(pattern) + PRIOR_GROUP * usual) / (total + PRIOR_GROUP));
          const expected = inGroups.length === 0 ? usual : sum(inGroups) / inGroups.length;
          const seen = here.of(pattern);
          return { pattern, seen, share: (seen + PRIOR_DOMAIN * expected) / (here.total + PRIOR_DOMAIN) };
        })
        .sort((a, b) => b.share - a.share);
    },
  };
}

const sum = (numbers: Iterable<number> = []): number => {
  let total = 0;
  for (const n of numbers) total += n;
  return total;
};
