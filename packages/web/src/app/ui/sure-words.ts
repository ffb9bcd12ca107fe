/** A chance in words: never rounded up to a certainty that it is not. */
export const sureWords = (chance: number): string =>
  chance === 1 ? 'sure' : `${Math.floor(chance * 100 + 1e-9)} % sure`;
