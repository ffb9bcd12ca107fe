/** The most common value; of equally common ones the larger; undefined for none. */
export function mostCommon<T extends number | string>(values: readonly T[]): T | undefined {
  const counts = new Map<T, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  let best: T | undefined;
  for (const [value, count] of counts) {
    const most = best === undefined ? 0 : counts.get(best)!;
    if (count > most || (count === most && value > best!)) best = value;
  }
  return best;
}
