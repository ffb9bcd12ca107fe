import { searchField, type Condition, type Range, type Search } from '../model/search';
import { partsBy, type Counting, type SplitNode } from './split';

/** Cuts one batch by one condition into parts of at most half of it, where its values allow; none when they do not. */
export async function splitHere(batch: Search, key: string, counting: Counting): Promise<SplitNode[]> {
  const field = searchField(batch.about, key);
  if (!field) return [];
  const count = await counting.count(batch);
  const parts = await partsBy({ by: null, count, search: batch, parts: [] }, field, Math.ceil(count / 2), counting);
  return parts.length > 1 ? parts : [];
}

/** Two batches as one; null when no single search has just their rows. They may differ in one condition only. */
export function joinBatches(a: Search, b: Search): Search | null {
  const key = (given: Condition) => JSON.stringify(given);
  const has = (search: Search, given: Condition) => search.conditions.some((one) => key(one) === key(given));
  const [onlyA, onlyB] = [a.conditions.filter((one) => !has(b, one)), b.conditions.filter((one) => !has(a, one))];
  if (a.about !== b.about || onlyA.length > 1 || onlyB.length > 1) return null;
  const shared = a.conditions.filter((one) => has(b, one));
  const [one, other] = [onlyA[0], onlyB[0]];
  // One of them is the whole of which the other is a part.
  if (!one || !other) return { ...a, conditions: shared };
  const both = either(one, other);
  return both && { ...a, conditions: [...shared, ...both] };
}

/** What holds when one or the other condition holds: none or one condition; null when one cannot say it. */
function either(a: Condition, b: Condition): Condition[] | null {
  if (a.field !== b.field) return null;
  if ('terms' in a && 'terms' in b) {
    if (!a.not && !b.not) return [{ ...a, terms: [...a.terms, ...b.terms.filter((term) => !holds(a.terms, term))] }];
    if (a.not && b.not) {
      const terms = a.terms.filter((term) => holds(b.terms, term));
      return terms.length > 0 ? [{ ...a, terms }] : [];
    }
    const [yes, no] = a.not ? [b, a] : [a, b];
    const terms = no.terms.filter((term) => !holds(yes.terms, term));
    return terms.length > 0 ? [{ ...no, terms }] : [];
  }
  if ('ranges' in a && 'ranges' in b && !a.not && !b.not) return [{ ...a, ranges: merged([...a.ranges, ...b.ranges]) }];
  return null;
}

const holds = (terms: readonly { text: string }[], term: { text: string }) =>
  terms.some(({ text }) => text.toLowerCase() === term.text.toLowerCase());

/** Ranges in order, those that meet or follow on each other as one. */
function merged(ranges: readonly Range[]): Range[] {
  const low = ({ from }: Range) => from ?? -Infinity;
  const high = ({ to }: Range) => to ?? Infinity;
  const out: Range[] = [];
  for (const range of [...ranges].sort((a, b) => low(a) - low(b))) {
    const last = out.at(-1);
    if (last && low(range) <= high(last) + 1) last.to = high(range) > high(last) ? range.to : last.to;
    else out.push({ ...range });
  }
  return out;
}
