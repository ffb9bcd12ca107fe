import type { SitePage } from '../../facts/website';

/** So many answers, and of each kind at least so many, teach. */
export const LEAST_TAUGHT = 12;
const LEAST_OF_A_KIND = 3;
const ROUNDS = 120;
/** Words that stand in one taught site only say nothing of others. */
const LEAST_SITES = 2;
const MOST_WORDS = 3000;
const FOLDS = 6;
/** Strengths that are tried; the one under which held-out answers are likeliest is taken. */
const STRENGTHS = [0.3, 1, 3, 10] as const;
const SHARPNESS = [0.5, 0.75, 1, 1.5, 2, 3] as const;

/** A site as learning sees it. */
export interface Lesson {
  pages: readonly SitePage[];
  /** How likely a yes is by the words alone, 0 to 1. */
  byWords: number;
}

/** How likely a yes is, 0 to 1. */
export type Learned = (site: Lesson) => number;

/**
 * Learns from answered sites: logistic regression on the words and pairs of words of a site (unit length, penalised by the square of
 * its weights), begun from what the lists of words say. Strength of penalty and sharpness of the chances are those under which
 * held-out answers are likeliest (cross-validation; Platt 1999 with one parameter). Nothing is drawn at random.
 *
 * @returns null while there are too few answers of either kind
 */
export function learnAnswer(lessons: readonly (Lesson & { answer: boolean })[]): Learned | null {
  const yes = lessons.filter(({ answer }) => answer).length;
  if (lessons.length < LEAST_TAUGHT || Math.min(yes, lessons.length - yes) < LEAST_OF_A_KIND) return null;
  const sites = lessons.map((lesson) => ({ ...lesson, words: wordsOf(lesson.pages) }));
  // Those of each kind are dealt out in turn, so that every part has both.
  const dealt = [...sites.filter(({ answer }) => answer), ...sites.filter(({ answer }) => !answer)];
  const parts = Math.min(FOLDS, dealt.length);
  let best = { loss: Infinity, strength: STRENGTHS[0] as number, sharpness: 1 };
  for (const strength of STRENGTHS) {
    const held: { margin: number; answer: boolean }[] = [];
    for (let part = 0; part < parts; part++) {
      const margin = fit(
        dealt.filter((_, i) => i % parts !== part),
        strength,
      );
      for (const [i, site] of dealt.entries())
        if (i % parts === part) held.push({ margin: margin(site), answer: site.answer });
    }
    for (const sharpness of SHARPNESS) {
      const loss = held.reduce((sum, { margin, answer }) => sum + lossOf(margin * sharpness, answer), 0);
      if (loss < best.loss) best = { loss, strength, sharpness };
    }
  }
  const margin = fit(sites, best.strength);
  return (site) => sigmoid(best.sharpness * margin({ ...site, words: wordsOf(site.pages) }));
}

type Taught = Lesson & { answer: boolean; words: ReadonlySet<string> };

/** Weighs the words by gradient descent, Nesterov's way, which comes near in ROUNDS. */
function fit(sites: readonly Taught[], strength: number): (site: Pick<Taught, 'byWords' | 'words'>) => number {
  const seen = new Map<string, number>();
  for (const { words } of sites) for (const word of words) seen.set(word, (seen.get(word) ?? 0) + 1);
  const vocabulary = new Map(
    [...seen]
      .filter(([, count]) => count >= LEAST_SITES && count < sites.length)
      .sort((a, b) => b[1] - a[1])
      .slice(0, MOST_WORDS)
      .map(([word, count], i) => [word, { i, weight: Math.log(sites.length / count) }]),
  );
  const vectorOf = (words: ReadonlySet<string>) => {
    const held: [number, number][] = [];
    for (const word of words) {
      const known = vocabulary.get(word);
      if (known) held.push([known.i, known.weight]);
    }
    const length = Math.hypot(...held.map(([, weight]) => weight)) || 1;
    return held.map(([i, weight]): [number, number] => [i, (weight / length) * strength]);
  };
  const rows = sites.map(({ words, byWords, answer }) => ({ x: vectorOf(words), prior: logit(byWords), answer }));
  const weights = new Float64Array(vocabulary.size + 2);
  const ahead = new Float64Array(weights.length);
  const [BIAS, PRIOR] = [vocabulary.size, vocabulary.size + 1];
  weights[PRIOR] = ahead[PRIOR] = 1;
  const marginOf = (at: Float64Array, x: readonly [number, number][], prior: number) =>
    x.reduce((sum, [i, value]) => sum + at[i]! * value, at[BIAS]! + at[PRIOR]! * prior);
  const step = 1 / (0.25 * sites.length * (strength ** 2 + 2) + 1);
  for (let round = 0; round < ROUNDS; round++) {
    const gradient = ahead.slice();
    gradient[PRIOR]! -= 1;
    for (const { x, prior, answer } of rows) {
      const off = sigmoid(marginOf(ahead, x, prior)) - Number(answer);
      for (const [i, value] of x) gradient[i]! += off * value;
      gradient[BIAS]! += off;
      gradient[PRIOR]! += off * prior;
    }
    const momentum = round / (round + 3);
    for (let i = 0; i < weights.length; i++) {
      const next = ahead[i]! - step * gradient[i]!;
      ahead[i] = next + momentum * (next - weights[i]!);
      weights[i] = next;
    }
  }
  return ({ words, byWords }) => marginOf(weights, vectorOf(words), logit(byWords));
}

/** Words of a site and pairs of neighbours, in lower case; figures are all one word. */
function wordsOf(pages: readonly SitePage[]): Set<string> {
  const out = new Set<string>();
  for (const { lines } of pages)
    for (const line of lines) {
      let before = '';
      for (const [raw] of line.toLowerCase().matchAll(/\p{L}{2,}|\p{N}+/gu)) {
        const word = /^\p{N}/u.test(raw) ? '0' : raw;
        out.add(word);
        if (before !== '') out.add(`${before} ${word}`);
        before = word;
      }
    }
  return out;
}

const sigmoid = (margin: number) => 1 / (1 + Math.exp(-margin));
const logit = (chance: number) => Math.log(chance / (1 - chance));
const lossOf = (margin: number, answer: boolean) => Math.log1p(Math.exp(answer ? -margin : margin));

/**
 * The sites whose answer would teach most: those that the reader doubts most; and while it lacks answers of a kind, the likeliest of
 * that kind in turn with them.
 *
 * @param taught how many answers of each kind there are
 */
export function whatTeaches<T extends { yes: number }>(
  open: readonly T[],
  taught: { yes: number; no: number },
  most: number,
): T[] {
  const orders: T[][] = [open.toSorted((a, b) => Math.abs(a.yes - 0.5) - Math.abs(b.yes - 0.5))];
  if (taught.yes < LEAST_OF_A_KIND) orders.push(open.toSorted((a, b) => b.yes - a.yes));
  if (taught.no < LEAST_OF_A_KIND) orders.push(open.toSorted((a, b) => a.yes - b.yes));
  const chosen = new Set<T>();
  for (let i = 0; chosen.size < Math.min(most, open.length); i++)
    chosen.add(orders[i % orders.length]![Math.floor(i / orders.length)]!);
  return [...chosen];
}
