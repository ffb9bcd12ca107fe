import { groupedBy } from '../../grouping/grouped-by';
import type { Person } from '../../model/person';
import { remembered } from '../../text/remembered';
import type { Named } from './name-ways';
import { localPart, localParts, type Pattern } from './patterns';

/** An address that could be somebody's, and how likely it is, 0 to 1. */
export interface Candidate {
  email: string;
  chance: number;
}

/** How many people of a domain who lack an address a plain one would fit. */
export type Claims = (email: string) => number;

type Lacking = Named & Pick<Person, 'domain' | 'email'>;

/**
 * Counts, domain by domain as they are asked for, whom an address would fit.
 *
 * @param patternsAt those that are tried at a domain
 */
export function claimsOf(people: readonly Lacking[], patternsAt: (domain: string) => readonly Pattern[]): Claims {
  const lacking = people.filter(({ email, domain }) => email === '' && domain !== '');
  const byDomain = groupedBy(lacking, ({ domain }) => domain);
  const countsOf = remembered((domain): ReadonlyMap<string, number> => {
    const counts = new Map<string, number>();
    for (const person of byDomain.get(domain) ?? [])
      for (const local of new Set(patternsAt(domain).map((pattern) => localPart(pattern, person))))
        counts.set(local, (counts.get(local) ?? 0) + 1);
    return counts;
  });
  return (email) => {
    const at = email.lastIndexOf('@');
    return countsOf(email.slice(at + 1)).get(email.slice(0, at)) ?? 0;
  };
}

/** Namesakes are told apart by a figure; how often, where the plain address is somebody else's. Common practice, no source. */
const WITH_FIGURE = [
  ['2', 0.35],
  ['1', 0.2],
  ['3', 0.05],
] as const;

/**
 * The addresses that could be somebody's, the likeliest first. One that fits several people who lack an address is theirs with a part of the chance;
 * one that somebody else has is tried with a figure behind it.
 */
export function candidatesFor(
  person: Named & Pick<Person, 'domain'>,
  ranked: readonly { pattern: Pattern; share: number }[],
  claims: Claims,
  isTaken: (email: string) => boolean,
): Candidate[] {
  const candidates = localParts(person, ranked).flatMap(({ local, chance }): Candidate[] => {
    const email = `${local}@${person.domain}`;
    if (!isTaken(email)) return [{ email, chance: chance / Math.max(1, claims(email)) }];
    return WITH_FIGURE.map(([figure, share]) => ({
      email: `${local}${figure}@${person.domain}`,
      chance: chance * share,
    }));
  });
  return candidates.filter(({ email }) => !isTaken(email)).sort((a, b) => b.chance - a.chance);
}
