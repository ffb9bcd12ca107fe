import { withCondition, type Condition, type Search } from '../model/search';
import type { Counting } from './split';

/** Batches made or pasted by hand, held against the search they are to cover. */
export interface BatchCheck {
  total: number;
  counts: number[];
  /** Rows of the search in no batch. */
  missing: number;
  /** Rows in more than one, and the pairs that share them. */
  twice: number;
  shared: { a: number; b: number; count: number }[];
}

/**
 * Counts what is missing from batches and what is counted twice. Pairs that cannot share a row by their conditions are not
 * asked about. A row in three batches counts as twice in each pair that has it, so then `missing` is a lower bound.
 */
export async function checkBatches(
  whole: Search,
  batches: readonly Search[],
  { count }: Counting,
): Promise<BatchCheck> {
  const total = await count(whole);
  const counts: number[] = [];
  for (const batch of batches) counts.push(await count(batch));
  const shared: BatchCheck['shared'] = [];
  for (const [a, one] of batches.entries())
    for (let b = a + 1; b < batches.length; b++) {
      if (apart(one, batches[b]!)) continue;
      const both = await count(batches[b]!.conditions.reduce(withCondition, one));
      if (both > 0) shared.push({ a, b, count: both });
    }
  const twice = shared.reduce((sum, pair) => sum + pair.count, 0);
  const sum = counts.reduce((all, n) => all + n, 0);
  return { total, counts, missing: Math.max(0, total - sum + twice), twice, shared };
}

/** True when the conditions alone show that no row is in both. */
export const apart = (a: Search, b: Search): boolean =>
  a.conditions.some((one) => b.conditions.some((other) => one.field === other.field && contradict(one, other)));

function contradict(a: Condition, b: Condition): boolean {
  if ('terms' in a && 'terms' in b) {
    const key = (text: string) => text.toLowerCase();
    const of = (given: typeof a) => new Set(given.terms.filter(({ exact }) => exact).map(({ text }) => key(text)));
    const whole = (given: typeof a) => given.terms.every(({ exact }) => exact);
    // Only choices have one value; text may hold several phrases at once.
    if (!a.not && !b.not)
      return SINGLE.has(a.field) && whole(a) && whole(b) && ![...of(a)].some((text) => of(b).has(text));
    if (a.not === b.not) return false;
    const [yes, no] = a.not ? [b, a] : [a, b];
    return whole(yes) && [...of(yes)].every((text) => of(no).has(text));
  }
  if ('ranges' in a && 'ranges' in b) {
    const end = (n: number | null, open: number) => n ?? open;
    const meet = a.ranges.some((r) =>
      b.ranges.some(
        (s) =>
          Math.max(end(r.from, -Infinity), end(s.from, -Infinity)) <=
          Math.min(end(r.to, Infinity), end(s.to, Infinity)),
      ),
    );
    if (!a.not && !b.not) return !meet;
    if (a.not === b.not) return false;
    const [yes, no] = a.not ? [b, a] : [a, b];
    return yes.ranges.every((r) =>
      no.ranges.some(
        (s) => end(s.from, -Infinity) <= end(r.from, -Infinity) && end(s.to, Infinity) >= end(r.to, Infinity),
      ),
    );
  }
  return false;
}

/** Fields of which a row has at most one value. */
const SINGLE = new Set(['level', 'team', 'sector', 'country', 'headcount']);
