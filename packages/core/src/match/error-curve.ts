/** What a line would merge. */
export interface LinePoint {
  /** Pairs at least this likely are merged. */
  line: number;
  pairs: number;
  /** How many of them are expected to be two people. */
  wrong: number;
}

/** What is more likely two people than one is never merged, however much error is accepted. */
export const LEAST_LINE = 0.5;

/** Log-odds of a chance, and back. */
export const logit = (chance: number): number => Math.log(chance / (1 - chance));
export const chanceAt = (odds: number): number => 1 / (1 + Math.exp(-odds));

const LOWEST = -4.6;
/** Between two lines, in log-odds. */
export const LINE_STEP = 1 / 6;

/** Lines at which the error is told: evenly by log-odds, from 0.01 to 0.999, as most pairs stand near the ends. */
const LINES = Array.from({ length: 70 }, (_, i) => chanceAt(LOWEST + i * LINE_STEP));

/**
 * How many pairs each line would merge, and how many of them wrongly.
 *
 * @param from pairs that are less likely were not kept: it is the first line
 * @param wrongOf how likely a pair of a chance is wrong
 */
export function errorCurve(
  links: readonly { chance: number }[],
  from: number,
  wrongOf: (chance: number) => number,
): LinePoint[] {
  const pairs = LINES.map(() => 0);
  const wrong = LINES.map(() => 0);
  for (const { chance } of links) {
    const at = Math.min(LINES.length - 1, Math.floor((logit(Math.min(chance, 1 - 1e-9)) - LOWEST) / LINE_STEP));
    if (at < 0) continue;
    pairs[at]!++;
    wrong[at]! += wrongOf(chance);
  }
  for (let i = LINES.length - 2; i >= 0; i--) {
    pairs[i]! += pairs[i + 1]!;
    wrong[i]! += wrong[i + 1]!;
  }
  return LINES.map((line, i) => ({ line: Math.max(line, from), pairs: pairs[i]!, wrong: wrong[i]! })).filter(
    (_, i) => !(LINES[i + 1]! <= from),
  );
}
