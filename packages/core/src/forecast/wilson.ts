/**
 * The interval in which a share lies with 95 % certainty (Wilson 1927, score interval without correction).
 *
 * @param hits of `n` trials
 * @returns shares from 0 to 1; no trials say nothing: 0 to 1
 */
export function wilson(hits: number, n: number): { low: number; high: number } {
  if (n === 0) return { low: 0, high: 1 };
  const z = 1.959964;
  const p = hits / n;
  const centre = p + (z * z) / (2 * n);
  const reach = z * Math.sqrt((p * (1 - p)) / n + (z * z) / (4 * n * n));
  const whole = 1 + (z * z) / n;
  // At the ends the bounds are whole; floating point alone would miss them by a hair.
  return { low: hits === 0 ? 0 : (centre - reach) / whole, high: hits === n ? 1 : (centre + reach) / whole };
}
