import type { Link } from '../grouping/cluster';
import { LEAST_LINE } from './error-curve';

/** A line that no pair is over. */
const NOTHING = 2;

/** What a line merges. */
export interface Merged {
  mergeFrom: number;
  /** For each record the lowest index of its cluster. */
  roots: Int32Array;
  /** For each record that was merged, the pair that brought it in. */
  reasons: Map<number, Link>;
  /** Share of `pairs` that is expected to be wrong, 0 to 1. */
  expectedError: number;
  /** Pairs of records that are together, and how many of them are expected to be two people. */
  pairs: number;
  wrong: number;
}

const TRIES = 6;
/** What was too much is asked for a little less, so that it ends. */
const LESS = 0.9;

/** Merges from as low as no more than a share of what is merged is expected to be wrong. */
export function lowestAllowed(links: readonly Link[], accepted: number, mergeAt: (line: number) => Merged): Merged {
  const chances = links.flatMap(({ chance }) => (chance < LEAST_LINE ? [] : [chance])).sort((p, q) => q - p);
  let best = mergeAt(NOTHING);
  let share = accepted;
  const tried = new Set<number>();
  while (tried.size < TRIES) {
    const line = lineOf(chances, share);
    if (tried.has(line)) break;
    tried.add(line);
    const found = mergeAt(line);
    if (found.expectedError <= accepted && line < best.mergeFrom) best = found;
    if (found.expectedError === 0) break;
    share *= (accepted / found.expectedError) * (found.expectedError > accepted ? LESS : 1);
  }
  return best;
}

/**
 * The lowest line over which no more than a share of the links is expected to be wrong; `NOTHING` where there is none.
 *
 * @param chances the highest first
 */
function lineOf(chances: readonly number[], share: number): number {
  let line = NOTHING;
  let wrong = 0;
  for (const [i, chance] of chances.entries()) {
    wrong += 1 - chance;
    if (chances[i + 1] === chance) continue;
    if (wrong > share * (i + 1) + 1e-9) break;
    line = chance;
  }
  return line;
}
