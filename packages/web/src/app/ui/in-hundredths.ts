/** A chance to two places, never rounded up to a certainty that it is not; '' where there is none. */
export const inHundredths = (chance: number | null): string =>
  chance === null ? '' : (Math.floor(chance * 100 + 1e-9) / 100).toFixed(2);
