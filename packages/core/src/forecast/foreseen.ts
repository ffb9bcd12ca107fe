const Z_90 = 1.644854;

/**
 * Between which numbers the hits among some more trials lie nine times of ten: both the rate, which so many trials showed, and what it brings are
 * left to chance (beta-binomial by its mean and variance, normal approximation).
 *
 * @param share the rate that was shown, 0 to 1
 * @param tried trials that it rests on
 */
export function foreseen(more: number, share: number, tried: number): { low: number; likely: number; high: number } {
  const mean = more * share;
  const reach = Z_90 * Math.sqrt(mean * (1 - share) * (1 + Math.max(0, more - 1) / (tried + 1)));
  return {
    low: Math.max(0, Math.round(mean - reach)),
    likely: Math.round(mean),
    high: Math.min(more, Math.round(mean + reach)),
  };
}
