import { withCondition, type Condition } from '../model/search';
import { pack } from './pack';
import { conditionOf, sumOf, type Counted, type Piece } from './pieces';
import type { Asking, SplitNode } from './split-node';
import { cutTable, MOST_ROWS, turned, type TablePlan, type TableRow } from './table';

/**
 * A part cut by two choices crossed: values of the one are grouped, and within each group those of the other are packed.
 *
 * @returns null where the first has too many values
 */
export async function crossed(
  node: SplitNode,
  one: Counted,
  other: Counted,
  cap: number,
  ask: Asking,
): Promise<SplitNode[] | null> {
  const [a, b] = one.pieces.length <= other.pieces.length ? [one, other] : [other, one];
  const bundles = bundled(a.pieces, cap);
  if (bundles.length > MOST_ROWS) return null;
  const side = (of: Counted, parts: readonly Piece[][]): Side => ({
    parts,
    where: (some) =>
      conditionOf(
        of,
        some.flatMap((i) => parts[i]!),
      ),
  });
  const { rows, plan, isTurned } = await planned(node, a, b, bundles, cap, ask);
  const sides = [side(a, bundles), side(b, columnsOf(b))] as const;
  return isTurned
    ? nodesOf(node, plan, turned(rows, columnSums(b))[0], columnSums(a, bundles), [sides[1], sides[0]])
    : nodesOf(node, plan, rows, columnSums(b), sides);
}

/** One of the two choices: its values, one by one or in bundles, and the condition that some of them are. */
interface Side {
  parts: readonly Piece[][];
  where: (some: readonly number[]) => Condition;
}

const columnsOf = ({ pieces }: Counted) => pieces.map((piece) => [piece]);
const columnSums = (of: Counted, parts: readonly Piece[][] = columnsOf(of)) => parts.map(sumOf);

/** Questions that were asked before: how many there are, and those of the two choices. */
const MARGINALS = 3;

/**
 * Counts the table row by row, the largest first, as long as a batch fewer would still be worth it: no split asks more than two
 * questions for a batch. `isTurned`: the plan groups the columns.
 */
async function planned(
  node: SplitNode,
  a: Counted,
  b: Counted,
  bundles: readonly Piece[][],
  cap: number,
  ask: Asking,
): Promise<{ rows: TableRow[]; plan: TablePlan; isTurned: boolean }> {
  const sums = columnSums(b);
  const rows: TableRow[] = bundles.map((pieces) => ({ total: sumOf(pieces), cells: null }));
  const fewest = Math.ceil(node.count / cap);
  const before = ask.asked();
  let plan = cutTable(rows, sums, cap);
  for (const [i, pieces] of bundles.entries()) {
    const isLast = i === bundles.length - 1;
    if (plan.batches <= fewest) break;
    if (isLast) rows[i] = { total: rows[i]!.total, cells: lumpOf(rows, sums) };
    else {
      if (ask.asked() - before >= 2 * (plan.batches - 1) - MARGINALS) break;
      const known = await ask.facet(withCondition(node.search, conditionOf(a, pieces)), b.field.key);
      if (!known) break;
      rows[i] = { total: rows[i]!.total, cells: cellsOf(known, rows[i]!.total, b) };
    }
    const next = cutTable(rows, sums, cap);
    if (next.batches < plan.batches) plan = next;
    const across = isLast && sums.length <= MOST_ROWS ? cutTable(...turned(rows, sums), cap) : null;
    if (across && across.batches < plan.batches) return { rows, plan: across, isTurned: true };
  }
  return { rows, plan, isTurned: false };
}

/** What one row has of each column; what no value counts is without a value. */
function cellsOf(known: ReadonlyMap<string, number>, total: number, { pieces }: Counted): number[] {
  const named = pieces.map(({ value }) => (value === null ? 0 : (known.get(value) ?? 0)));
  const blank = pieces.findIndex(({ value }) => value === null);
  if (blank >= 0) named[blank] = Math.max(0, total - named.reduce((sum, n) => sum + n, 0));
  return named;
}

/** What the rows that are not counted by column have together. */
const lumpOf = (rows: readonly TableRow[], sums: readonly number[]) =>
  sums.map((sum, k) => Math.max(0, sum - rows.reduce((known, { cells }) => known + (cells?.[k] ?? 0), 0)));

/** A plan as parts of a split. */
function nodesOf(
  node: SplitNode,
  plan: TablePlan,
  rows: readonly TableRow[],
  sums: readonly number[],
  [first, second]: readonly [Side, Side],
): SplitNode[] {
  const lump = lumpOf(rows, sums);
  const count = (at: readonly number[], columns: readonly number[]) =>
    columns.reduce(
      (sum, k) =>
        sum + at.reduce((n, i) => n + (rows[i]!.cells?.[k] ?? 0), 0) + (at.some((i) => !rows[i]!.cells) ? lump[k]! : 0),
      0,
    );
  const part = (of: SplitNode, by: Condition, n: number): SplitNode => ({
    by,
    count: n,
    search: withCondition(of.search, by),
    parts: [],
  });
  const nodes = plan.groups.map(({ rows: at, parts }): SplitNode => {
    // One group of everything is no cut.
    const total = at.reduce((sum, i) => sum + rows[i]!.total, 0);
    const group = plan.groups.length === 1 ? node : part(node, first.where(at), total);
    if (!parts) return group;
    const all = parts.flatMap(({ columns }) => columns);
    // What has nothing in this group goes with its last part, so that the parts cover it whatever comes.
    const nowhere = second.parts.flatMap((_, k) => (all.includes(k) ? [] : [k]));
    return {
      ...group,
      parts: parts.map(({ columns, rows: again }, i): SplitNode => {
        const by = second.where([...columns, ...(i === parts.length - 1 ? nowhere : [])]);
        const cut = part(group, by, count(at, columns));
        return again ? { ...cut, parts: again.map((bin) => part(cut, first.where(bin), count(bin, columns))) } : cut;
      }),
    };
  });
  return nodes.length === 1 ? nodes[0]!.parts : nodes;
}

/** Values one by one, the largest first; the small ones of many together, as far as they fit into half a batch. */
function bundled(pieces: readonly Piece[], cap: number): Piece[][] {
  const order = pieces.filter(({ count }) => count > 0).sort((x, y) => y.count - x.count);
  const small = order.length <= MOST_ROWS ? [] : order.slice(MOST_ROWS - 3).filter(({ count }) => count <= cap / 2);
  const bins = pack(
    small.map(({ count }) => count),
    cap / 2,
  );
  const out = [
    ...order.filter((piece) => !small.includes(piece)).map((piece) => [piece]),
    ...bins.map((bin) => bin.map((i) => small[i]!)),
  ];
  // Rows without a value may still come; they have their place.
  out.at(-1)!.push(...pieces.filter(({ count }) => count === 0));
  return out;
}
