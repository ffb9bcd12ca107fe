/**
 * How many more rows bring what is missing, at the rate of those that came.
 *
 * @param brought of `rows` that came, how many became what is wanted
 * @param missing how many are wanted still
 * @returns null where nothing is missing, or none was brought: then no number is enough
 */
export function rowsToGo(
  brought: { low: number; likely: number; high: number },
  missing: number,
): { low: number; likely: number; high: number } | null {
  if (missing <= 0 || brought.likely <= 0) return null;
  const at = (share: number) => Math.ceil(missing / share);
  return { low: at(brought.high), likely: at(brought.likely), high: at(Math.max(brought.low, Number.EPSILON)) };
}
