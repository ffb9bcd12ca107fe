/** A share as it is written in forms: so many in 1,000, to a tenth; null stays null. */
export const inThousand = (share: number | null): number | null =>
  share === null ? null : Math.round(share * 10_000) / 10;
export const ofThousand = (many: number | null): number | null => (many === null ? null : many / 1000);
