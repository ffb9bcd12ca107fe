import type { Job } from '@sieve/contract';
import type { SieveLevel } from './sieve-shape';

/** How many rows are left at the top of a job's sieve and below each of its steps. */
export function sieveLevels({ sieve, summary }: Job): SieveLevel[] {
  if (!summary) return [1, ...sieve.map(() => 1)].map((left) => ({ left }));
  const { steps, merged } = summary;
  const matchAt = sieve.findIndex(({ kind }) => kind === 'match');
  let pass = steps[0]?.came ?? 0;
  // Before matching the merged records are rows of their own.
  const lefts = [pass + (matchAt >= 0 ? merged : 0)];
  for (const [position, { id }] of sieve.entries()) {
    // A step that was not there when the rows were sifted let all pass.
    pass = steps.find((count) => count.id === id)?.pass ?? pass;
    lefts.push(pass + (position < matchAt ? merged : 0));
  }
  return lefts.map((left) => ({ left }));
}
