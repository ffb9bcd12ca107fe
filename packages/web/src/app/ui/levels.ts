import type { Job } from '@sieve/contract';
import type { SieveLevel } from './sieve-shape';

/** How many rows are left at the top of a job's sieve and below each of its steps. */
export function sieveLevels({ sieve, summary }: Job): SieveLevel[] {
  if (!summary) return [1, ...sieve.map(() => 1)].map((left) => ({ left }));
  const { steps, merged } = summary;
  const matchAt = sieve.findIndex(({ kind }) => kind === 'match');
  // Before matching the merged records are rows of their own.
  const own = (position: number) => (position < matchAt ? merged : 0);
  return [(steps[0]?.came ?? 0) + own(-1), ...steps.map(({ pass }, position) => pass + own(position))].map((left) => ({
    left,
  }));
}
