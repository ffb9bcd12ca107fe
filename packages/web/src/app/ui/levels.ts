import type { Job } from '@sieve/contract';
import type { SieveLevel } from './sieve-shape';

/** How many rows are left below each step of a job's sieve. */
export function sieveLevels({ summary }: Job): SieveLevel[] {
  if (!summary) return [1, 1, 1, 1, 1].map((left) => ({ left }));
  const { steps, records, verdicts } = summary;
  return [
    records,
    steps.tidy.pass + summary.merged,
    steps.match.pass,
    steps.screen.pass,
    steps.append.pass,
    verdicts.valid,
  ].map((left) => ({ left }));
}
