import { cluster, mostLikelyFirst } from '../grouping/cluster';
import { companyPairs, type NamedCompany } from './match-names';

/** A pair of companies at least so likely one is taken for one; a less likely one a person judges. */
export const SAME_FROM = 0.75;
export const JUDGE_FROM = 0.3;

/** What a person said of pairs of companies, by their places. */
export interface SaidOfCompanies {
  same: readonly (readonly [number, number])[];
  different: readonly (readonly number[])[];
}

/**
 * Puts companies together that are one: by domain, by what a person said, and by likely names. Two that are known at different domains are
 * not one by their names alone: a group and its site, or namesakes.
 *
 * @returns for each company the first of its group
 */
export function groupCompanies(
  companies: readonly NamedCompany[],
  said: SaidOfCompanies = { same: [], different: [] },
): Int32Array {
  const byDomain = new Map<string, number>();
  const oneDomain: [number, number][] = [];
  for (const [i, { domain }] of companies.entries()) {
    if (domain === '') continue;
    const known = byDomain.get(domain);
    if (known === undefined) byDomain.set(domain, i);
    else oneDomain.push([known, i]);
  }
  const differ = (field: 'domain' | 'country' | 'link', a: number, b: number) => {
    const [one, two] = [companies[a]![field], companies[b]![field]];
    return one !== '' && two !== '' && one !== two;
  };
  /** A directory shows a company once. */
  const areTwoOfOne = (a: number, b: number) =>
    differ('link', a, b) && companies[a]!.link.split('/')[0] === companies[b]!.link.split('/')[0];
  const conflict = (a: number, b: number) => differ('domain', a, b) || differ('country', a, b) || areTwoOfOne(a, b);
  const pairs = companyPairs(companies, (a, b) => !conflict(a, b));
  const likely = mostLikelyFirst(pairs.filter(({ chance }) => chance >= SAME_FROM));
  return cluster(companies.length, likely, [...oneDomain, ...said.same], said.different, conflict);
}
