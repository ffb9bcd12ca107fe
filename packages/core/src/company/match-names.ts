import { jaroWinkler } from '../text/jaro-winkler';
import { oneEdit } from '../text/one-edit';
import { remembered } from '../text/remembered';
import { nameWords, type NameWords } from './name-words';

/** A company as it is compared; '' for what is not known. */
export interface NamedCompany {
  name: string;
  domain: string;
  city: string;
  country: string;
  /** Where a directory shows it. */
  link: string;
}

/** Two companies, by their places in the list, that may be one. */
export interface CompanyPair {
  a: number;
  b: number;
  /** How likely they are one, 0 to 1. */
  chance: number;
}

/** Pairs less likely are not worth a look. */
const LEAST = 0.2;
/** A block of more says nothing. */
const LARGEST_BLOCK = 16;
/** Blocks of a name: its rarest groups of letters. */
const RAREST = 3;
const GRAM = 4;
/** Where likeness of names turns from different to the same, and how steeply; common practice, no source, measured by the bench. */
const MIDDLE = 0.8;
const STEEP = 22;

/**
 * Finds companies that may be one by their names: words weighed by how rare they are in the list (Spärck Jones 1972), alike when they
 * are nearly spelled the same (Jaro-Winkler) or one shortens the other; place and domain speak for and against. The work grows
 * nearly linearly: only names that share a rare group of letters are compared.
 *
 * @param mayBeOne by what else is known of two; those who may not are not compared
 * @returns pairs with a chance of 0.2 or more, the likeliest first
 */
export function companyPairs(
  companies: readonly NamedCompany[],
  mayBeOne: (a: number, b: number) => boolean = () => true,
): CompanyPair[] {
  const names = companies.map(({ name }) => nameWords(name));
  return likely(candidates(names, mayBeOne), companies, names);
}

/** The same of one company with all others. */
export function companyTwins(at: number, companies: readonly NamedCompany[]): CompanyPair[] {
  const names = companies.map(({ name }) => nameWords(name));
  const others = [...names.keys()].filter((b) => b !== at).map((b): [number, number] => [at, b]);
  return likely(others, companies, names);
}

function likely(
  compared: Iterable<[number, number]>,
  companies: readonly NamedCompany[],
  names: readonly NameWords[],
): CompanyPair[] {
  const seen = new Map<string, number>();
  for (const { words } of names) for (const word of new Set(words)) seen.set(word, (seen.get(word) ?? 0) + 1);
  const weight = (word: string) => Math.log(1 + names.length / seen.get(word)!) + (word.length > 2 ? 0.5 : 0);
  const pairs: CompanyPair[] = [];
  for (const [a, b] of compared) {
    const chance = chanceOf(alike(names[a]!, names[b]!, weight), companies[a]!, companies[b]!);
    if (chance >= LEAST) pairs.push({ a, b, chance });
  }
  return pairs.sort((p, q) => q.chance - p.chance || p.a - q.a || p.b - q.b);
}

function chanceOf(likeness: number, a: NamedCompany, b: NamedCompany): number {
  let score = likeness;
  if (a.domain !== '' && b.domain !== '' && a.domain !== b.domain)
    score -= labelOf(a.domain) === labelOf(b.domain) ? 0.02 : 0.12;
  if (a.country !== '' && b.country !== '' && a.country !== b.country) score -= 0.18;
  else if (a.city !== '' && b.city !== '') score += a.city === b.city ? 0.05 : -0.05;
  return 1 / (1 + Math.exp(-STEEP * (score - MIDDLE)));
}

/** `brackenfold` of `brackenfold.co.uk`: branches have one label under many suffixes. */
const labelOf = (domain: string) => domain.split('.')[0]!;

/** How alike two names are, 0 to 1. */
function alike(a: NameWords, b: NameWords, weight: (word: string) => number): number {
  if (a.joined === b.joined || a.run === b.run) return 1;
  const [short, long] = a.words.length <= b.words.length ? [a, b] : [b, a];
  const open = new Set(long.words.keys());
  let shared = 0;
  let all = 0;
  for (const word of short.words) {
    let best = { at: -1, like: 0 };
    for (const at of open) {
      const like = wordsAlike(word, long.words[at]!);
      if (like > best.like) best = { at, like };
    }
    const own = weight(word);
    all += own;
    if (best.at < 0) continue;
    open.delete(best.at);
    const other = weight(long.words[best.at]!);
    // A slip makes a word rare; the commoner of the two says what it is worth.
    const both = best.like === 1 ? own + other : 2 * Math.min(own, other);
    all += both - own;
    shared += best.like * both;
  }
  for (const at of open) all += weight(long.words[at]!);
  const byWords = all === 0 ? 0 : shared / all;
  const isShort =
    short.words.length === 1 && long.words.length > 1 && short.joined.length > 2 && short.joined === long.initials;
  return Math.max(byWords, spelledAlike(a.joined, b.joined), isShort ? MIDDLE - 0.02 : 0);
}

/** Figures that differ are another word; so are short words. */
function wordsAlike(a: string, b: string): number {
  if (a === b) return 1;
  if (looks(a) === looks(b)) return 0.97;
  const least = Math.min(a.length, b.length);
  if (/\p{N}/u.test(a + b) || least < 3) return 0;
  const spelled = spelledAlike(a, b);
  return spelled > 0 ? spelled : least > 3 && (a.startsWith(b) || b.startsWith(a)) ? 0.6 : 0;
}

/** One slip in a word of five letters or more, two in a long one. */
function spelledAlike(a: string, b: string): number {
  const [x, y] = [looks(a), looks(b)];
  if (x === y) return 0.97;
  const least = Math.min(x.length, y.length);
  if (least < 5 || figuresOf(a) !== figuresOf(b)) return 0;
  if (oneEdit(x, y)) return least < 7 ? 0.84 : 0.93;
  return least > 9 && jaroWinkler(x, y, 0.95) >= 0.95 ? 0.88 : 0;
}

/** Letters and figures that are taken for each other from a card or a scan. */
const looks = remembered((word) => word.replace(/[1i]/g, 'l').replaceAll('0', 'o'));
const figuresOf = remembered((word) => word.replace(/[^2-9]/g, ''));

/** Pairs of names that share one of their rarest groups of letters, or initials. */
function* candidates(
  names: readonly NameWords[],
  mayBeOne: (a: number, b: number) => boolean,
): Generator<[number, number]> {
  const numbers = new Map<string, number>();
  const counts: number[] = [];
  const numberOf = (gram: string): number => {
    let number = numbers.get(gram);
    if (number === undefined) numbers.set(gram, (number = counts.push(0) - 1));
    counts[number]!++;
    return number;
  };
  const grams = names.map(({ joined }) => {
    if (joined.length <= GRAM) return [numberOf(joined)];
    const all = new Set<string>();
    for (let i = 0; i <= joined.length - GRAM; i++) all.add(joined.slice(i, i + GRAM));
    return Array.from(all, numberOf);
  });
  const blocks = new Map<string | number, number[]>();
  const put = (key: string | number, i: number) => {
    const block = blocks.get(key);
    if (block) block.push(i);
    else blocks.set(key, [i]);
  };
  for (const [i, name] of names.entries()) {
    const shared = grams[i]!.filter((gram) => counts[gram]! > 1);
    for (const gram of shared.sort((a, b) => counts[a]! - counts[b]!).slice(0, RAREST)) put(gram, i);
    put(`whole ${name.joined}`, i);
    put(`run ${name.run}`, i);
    put(`start ${name.joined.slice(0, 6)}`, i);
    if (name.words.length > 1) put(`initials ${name.initials}`, i);
    else if (name.joined.length <= 6) put(`initials ${name.joined}`, i);
  }
  const done = new Set<number>();
  for (const block of blocks.values()) {
    if (block.length > LARGEST_BLOCK) continue;
    for (const [at, a] of block.entries())
      for (const b of block.slice(at + 1)) {
        const key = a * names.length + b;
        if (a === b || !mayBeOne(a, b) || done.has(key)) continue;
        done.add(key);
        yield [a, b];
      }
  }
}
