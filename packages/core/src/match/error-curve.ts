/** What a line would merge. */
export interface LinePoint {
  /** Pairs at least this likely are merged. */
  line: number;
  pairs: number;
  /** How many of them are expected to be two people. */
  wrong: number;
}

const LOWEST = -4.6;
const STEP = 1 / 6;
const logit = (chance: number) => Math.log(chance / (1 - chance));

/** Lines at which the error is told: evenly by log-odds, from 0.01 to 0.999, as most pairs stand near the ends. */
const LINES = Array.from({ length: 70 }, (_, i) => 1 / (1 + Math.exp(-(LOWEST + i * STEP))));

/**
 * How many pairs each line would merge, and how many of them wrongly: a pair is wrong with what its chance leaves.
 *
 * @param from pairs that are less likely were not kept; lines below it are left out
 */
export function errorCurve(chances: Iterable<number>, from: number): LinePoint[] {
  const pairs = LINES.map(() => 0);
  const wrong = LINES.map(() => 0);
  for (const chance of chances) {
    const at = Math.min(LINES.length - 1, Math.floor((logit(Math.min(chance, 1 - 1e-9)) - LOWEST) / STEP));
    if (at < 0) continue;
    pairs[at]!++;
    wrong[at]! += 1 - chance;
  }
  for (let i = LINES.length - 2; i >= 0; i--) {
    pairs[i]! += pairs[i + 1]!;
    wrong[i]! += wrong[i + 1]!;
  }
  return LINES.map((line, i) => ({ line, pairs: pairs[i]!, wrong: wrong[i]! })).filter(({ line }) => line >= from);
}
