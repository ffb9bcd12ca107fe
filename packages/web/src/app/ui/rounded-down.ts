/** A chance to some places, never rounded up to a certainty that it is not. */
export const roundedDown = (chance: number, places: number): string =>
  (Math.floor(chance * 10 ** places + 1e-9) / 10 ** places).toFixed(places);
