import { withCondition, type Condition, type SearchField } from '../model/search';
import { pack } from './pack';
import type { Counting, SplitNode } from './split-node';

/** The rows with one value of a choice; null: those with none of them. */
export interface Piece {
  value: string | null;
  count: number;
}

export async function piecesOf(
  node: SplitNode,
  field: SearchField,
  ask: Counting,
): Promise<Pick<Counted, 'pieces' | 'atOnce'> | null> {
  const counted = await ask.facet(node.search, field.key);
  let pieces: Piece[];
  if (counted) pieces = [...counted].map(([value, count]) => ({ value, count }));
  else if (field.values)
    pieces = await Promise.all(
      field.values.map(async (value) => ({
        value,
        count: await ask.count(withCondition(node.search, include(field, [value]))),
      })),
    );
  else return null;
  const sum = pieces.reduce((total, { count }) => total + count, 0);
  return {
    pieces: [...pieces.filter(({ count }) => count > 0), { value: null, count: Math.max(0, node.count - sum) }],
    atOnce: counted !== null,
  };
}

/** About how many batches they make. */
export const batchesLeft = (pieces: readonly Piece[], cap: number): number => {
  const small = pieces.filter(({ count }) => count <= cap).map(({ count }) => count);
  return (
    pack(small, cap).length + pieces.reduce((sum, { count }) => sum + (count > cap ? Math.ceil(count / cap) : 0), 0)
  );
};

export const include = (field: SearchField, values: readonly string[], not = false): Condition => ({
  field: field.key,
  not,
  terms: values.map((text) => ({ text, exact: true })),
});

/** A choice with what each of its values has of a part. */
export interface Counted {
  field: SearchField;
  pieces: Piece[];
  /** By one question; else by one for each value. */
  atOnce: boolean;
  batches: number;
}

export const sumOf = (pieces: readonly Piece[]) => pieces.reduce((sum, { count }) => sum + count, 0);

/** Some values of a choice; where nothing is among them, by what is not. */
export function conditionOf(
  { field, pieces: all }: Pick<Counted, 'field' | 'pieces'>,
  some: readonly Piece[],
): Condition {
  const values = some.flatMap(({ value }) => value ?? []);
  if (values.length === some.length) return include(field, values);
  return include(
    field,
    all.flatMap(({ value }) => (value === null || values.includes(value) ? [] : value)),
    true,
  );
}
