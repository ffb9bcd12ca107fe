import { PATTERNS, patternOf, usualShare, type Pattern } from './patterns';

type Counts = Map<Pattern, number>;

/** What the known addresses say about how each domain makes them. */
export interface Patterns {
  /** Counts an address that came with the records: for its domain, and for how firms do it in general. */
  learn(email: string, firstName: string, lastName: string): void;
  /** Counts an address that was found, for its domain only, so that the order of domains does not matter. */
  learnHere(email: string, firstName: string, lastName: string): void;
  /** Patterns of a domain from the most to the least likely, with their shares (0 to 1). */
  ranked(domain: string): { pattern: Pattern; share: number; seen: number }[];
}

/** How many known addresses the usual shares weigh as much as. */
const PRIOR_ALL = 50;
const PRIOR_DOMAIN = 1.5;

/** Learns address patterns: by domain where addresses are known there, by all domains elsewhere. */
export function learningPatterns(): Patterns {
  const all: Counts = new Map();
  const byDomain = new Map<string, Counts>();
  let total = 0;
  const count = (counts: Counts, pattern: Pattern) => counts.set(pattern, (counts.get(pattern) ?? 0) + 1);
  function learnHere(email: string, firstName: string, lastName: string): Pattern | undefined {
    const pattern = patternOf(email, firstName, lastName);
    if (!pattern) return undefined;
    const domain = email.slice(email.indexOf('@') + 1);
    byDomain.set(domain, count(byDomain.get(domain) ?? new Map<Pattern, number>(), pattern));
    return pattern;
  }
  return {
    learnHere,
    learn(email, firstName, lastName) {
      const pattern = learnHere(email, firstName, lastName);
      if (!pattern) return;
      count(all, pattern);
      total++;
    },
    ranked(domain) {
      const counts = byDomain.get(domain);
      const known = counts ? [...counts.values()].reduce((a, b) => a + b, 0) : 0;
      return PATTERNS.map((pattern) => {
        const usual = ((all.get(pattern) ?? 0) + PRIOR_ALL * usualShare(pattern)) / (total + PRIOR_ALL);
        const seen = counts?.get(pattern) ?? 0;
        return { pattern, seen, share: (seen + PRIOR_DOMAIN * usual) / (known + PRIOR_DOMAIN) };
      }).sort((a, b) => b.share - a.share);
    },
  };
}
