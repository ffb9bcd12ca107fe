import type { Facts, Wanted } from '../../facts/facts';
import type { SitePage } from '../../facts/website';

/** The site of some that another reads most like, and how much, 0 to 1. */
export interface LikeSite {
  domain: string;
  share: number;
}

/** Words with how often they stand there, or what they weigh. */
type Words = ReadonlyMap<string, number>;

/**
 * Tells how much a company's website reads like those of some others: words weighed by how rare they are over all sites that were read (Spärck Jones
 * 1972), the cosine between two sites (Salton 1975).
 *
 * @param those domains that are looked for the like of
 * @param all domains of the companies of the job
 */
export function likeSites(
  those: readonly string[],
  all: readonly string[],
  facts: Facts,
): (domain: string) => { like: LikeSite | null } | Wanted {
  if (those.length === 0) return () => ({ like: null });
  const isOneOf = new Set(those);
  const read = (domain: string): { words: Words } | Wanted => {
    const known = facts({ kind: 'website', domain });
    if (!known.fact) return known;
    return { words: known.fact.answer.state === 'read' ? wordsOf(known.fact.answer.pages) : new Map<string, number>() };
  };
  const sitesWith = new Map<string, number>();
  let sites = 0;
  for (const domain of new Set([...those, ...all])) {
    const site = domain === '' ? null : read(domain);
    if (!site || 'ask' in site) continue;
    sites++;
    for (const word of site.words.keys()) sitesWith.set(word, (sitesWith.get(word) ?? 0) + 1);
  }
  const rarity = (word: string) => Math.log((2 + sites) / (1 + (sitesWith.get(word) ?? 0)));
  const vectorOf = (words: Words): Words => {
    const weights = [...words].map(([word, n]) => [word, (1 + Math.log(n)) * rarity(word)] as const);
    const length = Math.hypot(...weights.map(([, weight]) => weight)) || 1;
    return new Map(weights.map(([word, weight]) => [word, weight / length]));
  };
  const examples = new Map<string, Words>();
  return (domain) => {
    if (domain === '' || isOneOf.has(domain)) return { like: null };
    for (const one of those) {
      if (examples.has(one)) continue;
      const site = read(one);
      if ('ask' in site) return site;
      examples.set(one, vectorOf(site.words));
    }
    const site = read(domain);
    if ('ask' in site) return site;
    const own = vectorOf(site.words);
    let like: LikeSite | null = null;
    for (const [one, vector] of examples) {
      const share = cosine(own, vector);
      if (share > (like?.share ?? 0)) like = { domain: one, share };
    }
    return { like };
  };
}

/** How often each word of three letters or more stands on some pages. */
function wordsOf(pages: readonly SitePage[]): Map<string, number> {
  const words = new Map<string, number>();
  for (const { title, lines } of pages)
    for (const line of [title, ...lines])
      for (const word of line.toLowerCase().match(/\p{L}{3,}/gu) ?? []) words.set(word, (words.get(word) ?? 0) + 1);
  return words;
}

function cosine(a: Words, b: Words): number {
  let sum = 0;
  for (const [word, weight] of a) sum += weight * (b.get(word) ?? 0);
  return sum;
}
