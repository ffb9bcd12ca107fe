import { LEVELS } from './compare';
import type { Subjects } from './subject';

/** Counts as shares of their sum. */
export const shares = (counts: number[]): number[] => {
  const sum = counts.reduce((a, b) => a + b, 0);
  return counts.map((n) => n / sum);
};

/** First names and last names go together, as they do in a country: namesakes are so many times as frequent as chance has them. */
const GO_TOGETHER = 3;

/** How many pairs of strangers have one name by chance: at most, since records of one person are counted with them. */
export function namesakesIn({ size, firstName, lastName }: Subjects): number {
  const agree = ({ counts }: Subjects['firstName']) =>
    counts.reduce((sum, n, id) => (id === 0 ? sum : sum + (n / size) ** 2), 0);
  return ((GO_TOGETHER * size * (size - 1)) / 2) * agree(firstName) * agree(lastName);
}

const BOTH_SAME = LEVELS * LEVELS - 1;
const withBoth = (names: readonly number[], both: number) => shares(names.with(BOTH_SAME, both));

/** No more strangers have both names in common than a share. */
export const atMost = (names: readonly number[], share: number): number[] => {
  const both = names[BOTH_SAME]!;
  return both <= share ? [...names] : withBoth(names, Math.min(both, share * (1 - both)));
};

/** Of relatives and colleagues of one last name no more than these have one first name: sons called as their fathers. */
const MOST_CALLED_ALIKE = 0.15;

/** Relatives and colleagues of one last name have one first name at least as often as any two people. */
export function ofRelatives(names: readonly number[], random: readonly number[]): number[] {
  const lastAt = (first: number) => names[first * LEVELS + LEVELS - 1]!;
  const others = lastAt(1) + lastAt(2) + lastAt(3);
  const least = shares(
    names.map((share, cell) => {
      const [first, last] = [Math.floor(cell / LEVELS), cell % LEVELS];
      return Math.max(share, (random[first]! * names[LEVELS + last]!) / random[1]!);
    }),
  );
  return withBoth(least, Math.min(least[BOTH_SAME]!, (others * MOST_CALLED_ALIKE) / (1 - MOST_CALLED_ALIKE)));
}
