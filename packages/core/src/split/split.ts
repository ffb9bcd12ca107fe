import {
  SEARCH_FIELDS,
  withCondition,
  type Condition,
  type Range,
  type Search,
  type SearchField,
} from '../model/search';
import { crossed } from './crossed';
import { pack } from './pack';
import { batchesLeft, conditionOf, piecesOf, sumOf, type Counted, type Piece } from './pieces';
import type { Asking, Counting, SplitNode } from './split-node';

export type { Counting, SplitNode } from './split-node';

export interface Split {
  top: SplitNode;
  /** The leaves of the tree, from left to right. */
  batches: SplitNode[];
  /** Rows over the cap in batches that nothing separates further. */
  outOfReach: number;
  /** ceil(count / cap): no split has fewer batches. */
  fewest: number;
  questions: number;
}

/**
 * Cuts a search into batches that together have every row, share none, and stay under the cap: as few as can be found, with
 * few questions.
 *
 * A part is cut by a choice (values packed into batches; the last batch excludes the values of all others, so that rows
 * without a value are in it) or by a number (whole ranges, none sharing an end, open at both ends). A choice costs one
 * question where the directory counts its values; a number about ten for each boundary, so it is asked only when the choices
 * leave more batches than one over the fewest, or something out of reach.
 */
export async function split(search: Search, cap: number, counting: Counting): Promise<Split> {
  let questions = 0;
  const known = new Map<string, number>();
  const ask: Asking = {
    asked: () => questions,
    count: async (asked) => {
      const key = JSON.stringify(asked);
      const before = known.get(key);
      if (before !== undefined) return before;
      questions++;
      const n = await counting.count(asked);
      known.set(key, n);
      return n;
    },
    facet: async (asked, field) => {
      questions++;
      return counting.facet(asked, field);
    },
  };
  const fields = SEARCH_FIELDS.filter(({ splits }) => splits?.includes(search.about));
  const top = await cut({ by: null, count: await ask.count(search), search, parts: [] }, cap, fields, ask);
  const batches = leaves(top);
  return {
    top,
    batches,
    outOfReach: batches.reduce((sum, { count }) => sum + Math.max(0, count - cap), 0),
    fewest: Math.max(1, Math.ceil(top.count / cap)),
    questions,
  };
}

export const leaves = (node: SplitNode): SplitNode[] => (node.parts.length === 0 ? [node] : node.parts.flatMap(leaves));

async function cut(node: SplitNode, cap: number, fields: readonly SearchField[], ask: Asking): Promise<SplitNode> {
  if (node.count <= cap || fields.length === 0) return node;
  const fewest = Math.ceil(node.count / cap);
  let best: SplitNode | null = null;
  const better = (one: SplitNode) => (best === null || cost(one, cap) < cost(best, cap) ? (best = one) : best);
  const deeper = async (parts: SplitNode[], used: readonly SearchField[]): Promise<SplitNode> => ({
    ...node,
    parts: await Promise.all(parts.map((part) => under(part, (leaf) => cut(leaf, cap, without(fields, used), ask)))),
  });

  const counted: Counted[] = [];
  for (const field of fields.filter(({ kind }) => kind === 'choice')) {
    const found = await piecesOf(node, field, ask);
    if (!found || found.pieces.filter(({ count }) => count > 0).length < 2) continue;
    counted.push({ field, ...found, batches: batchesLeft(found.pieces, cap) });
    const fits = found.pieces.every(({ count }) => count <= cap);
    if (fits && counted.at(-1)!.batches === fewest) return deeper(partsOf(node, field, found.pieces, cap), [field]);
    // Two that the directory counts can be crossed; a third is asked where those leave something to be wished.
    if (counted.length === 2 && counted.every(({ atOnce }) => atOnce)) {
      const [a, b] = counted as [Counted, Counted];
      const parts = await crossed(node, a, b, cap, ask);
      if (parts) better(await deeper(parts, [a.field, b.field]));
      if (best && cost(best, cap) < fewest + 1) return best;
    }
  }
  counted.sort((a, b) => a.batches - b.batches);
  // The first choice looks best from above; the next is tried only where that leaves much to be wished.
  for (const { field, pieces } of best ? [] : counted.slice(0, 2)) {
    better(await deeper(partsOf(node, field, pieces, cap), [field]));
    if (cost(best!, cap) <= fewest + 1) return best!;
  }
  if (best && cost(best, cap) <= fewest + 1) return best;
  for (const field of fields.filter(({ kind }) => kind === 'number')) {
    const parts = await rangeParts(node, field, cap, ask);
    if (parts.length < 2) continue;
    better(await deeper(parts, [field]));
    if (cost(best!, cap) <= fewest + 1) break;
  }
  return best ?? node;
}

/** A part with its leaves cut on. */
const under = async (node: SplitNode, cutOn: (leaf: SplitNode) => Promise<SplitNode>): Promise<SplitNode> =>
  node.parts.length === 0
    ? cutOn(node)
    : { ...node, parts: await Promise.all(node.parts.map((part) => under(part, cutOn))) };

const without = (fields: readonly SearchField[], used: readonly SearchField[]) =>
  fields.filter((field) => !used.includes(field));

/** A part cut by one field; empty or one part when its values do not separate it. */
export async function partsBy(node: SplitNode, field: SearchField, cap: number, ask: Counting): Promise<SplitNode[]> {
  if (field.kind === 'number') return rangeParts(node, field, cap, ask);
  const found = await piecesOf(node, field, ask);
  if (!found || found.pieces.filter(({ count }) => count > 0).length < 2) return [];
  return partsOf(node, field, found.pieces, cap);
}

/** Batches of a part; a row out of reach weighs as much as a thousandth of a batch. */
const cost = (node: SplitNode, cap: number): number =>
  leaves(node).reduce((sum, { count }) => sum + 1 + Math.max(0, count - cap) / 1000, 0);

/** Values packed into parts; the part that has what has no value excludes the values of all others. */
function partsOf(node: SplitNode, field: SearchField, pieces: readonly Piece[], cap: number): SplitNode[] {
  const small = pieces.filter(({ count }) => count <= cap);
  const bins = pack(
    small.map(({ count }) => count),
    cap,
  ).map((bin) => bin.map((i) => small[i]!));
  const large = pieces.filter(({ count }) => count > cap).map((piece) => [piece]);
  return [...bins, ...large].map((bin): SplitNode => {
    const by = conditionOf({ field, pieces: [...pieces] }, bin);
    return { by, count: sumOf(bin), search: withCondition(node.search, by), parts: [] };
  });
}

/** Whole ranges from the smallest number up, each as long as the cap allows; the rows without a number with the last or alone. */
async function rangeParts(node: SplitNode, field: SearchField, cap: number, ask: Counting): Promise<SplitNode[]> {
  const lowest = field.from!;
  const highest = field.to!;
  const whereOf = (ranges: Range[], not = false): Condition => ({ field: field.key, not, ranges });
  const upTo = new Map<number, number>();
  /** Rows whose number is at most n. */
  const below = async (n: number): Promise<number> => {
    const before = upTo.get(n);
    if (before !== undefined) return before;
    const count = await ask.count(withCondition(node.search, whereOf([{ from: null, to: n >= highest ? null : n }])));
    upTo.set(n, count);
    return count;
  };
  const numbered = await below(highest);
  const blank = Math.max(0, node.count - numbered);
  if (numbered === 0) return [];

  const parts: { range: Range; count: number }[] = [];
  let from: number | null = null;
  let taken = 0;
  while (numbered - taken > cap) {
    const first = from ?? lowest;
    if (first >= highest) break;
    const end = await lastUnder(first, highest, taken + cap, below, upTo);
    const count = (await below(end)) - taken;
    if (count > 0) parts.push({ range: { from, to: end }, count });
    // An empty stretch before a single crowded number is left to the next part.
    if (count > 0) from = end + 1;
    else if (end >= highest) break;
    taken += count;
    if (count === 0) {
      const crowded = (await below(end + 1)) - taken;
      parts.push({ range: { from, to: end + 1 }, count: crowded });
      from = end + 2;
      taken += crowded;
    }
  }
  if (numbered > taken || parts.length === 0) parts.push({ range: { from, to: null }, count: numbered - taken });
  else parts.at(-1)!.range = { ...parts.at(-1)!.range, to: null };

  const toNode = (by: Condition, count: number): SplitNode => ({
    by,
    count,
    search: withCondition(node.search, by),
    parts: [],
  });
  if (parts.length === 1 && blank === 0) return [];
  const host =
    [...parts].reverse().find(({ count }) => count + blank <= cap) ?? (blank === 0 ? parts.at(-1) : undefined);
  const others = joined(parts.filter((part) => part !== host).map(({ range }) => range));
  const nodes = parts.map(({ range, count }) =>
    range === host?.range && others.length > 0
      ? toNode(whereOf(others, true), count + blank)
      : toNode(whereOf([range]), count),
  );
  if (!host || others.length === 0) nodes.push(toNode(whereOf([{ from: null, to: null }], true), blank));
  return nodes;
}

/** Neighbouring ranges as one. */
function joined(ranges: readonly Range[]): Range[] {
  const out: Range[] = [];
  for (const { from, to } of ranges) {
    const last = out.at(-1);
    if (last && last.to !== null && from === last.to + 1) last.to = to;
    else out.push({ from, to });
  }
  return out;
}

/**
 * The largest number below `highest` up to which no more than `most` rows lie, from `first` on; `first - 1` when even the
 * first number has more. Guesses between known counts, then halves.
 */
async function lastUnder(
  first: number,
  highest: number,
  most: number,
  below: (n: number) => Promise<number>,
  known: ReadonlyMap<number, number>,
): Promise<number> {
  let low = first - 1;
  let high = highest;
  for (const [n, count] of known) {
    if (count <= most && n > low) low = n;
    if (count > most && n < high) high = n;
  }
  for (let turn = 0; high - low > 1; turn++) {
    const [a, b] = [known.get(low), known.get(high)];
    const guess =
      a !== undefined && b !== undefined && b > a ? low + ((most - a) / (b - a)) * (high - low) : (low + high) / 2;
    const middle = turn % 3 === 2 ? (low + high) / 2 : guess;
    const n = Math.min(high - 1, Math.max(low + 1, Math.floor(middle)));
    if ((await below(n)) <= most) low = n;
    else high = n;
  }
  return low;
}
