/** A larger group has too many ways to fall into people to look at each. */
const LARGEST_GROUP = 6;
/** Of a group that is larger still so many records tell for all. */
const MOST_LOOKED_AT = 40;

/**
 * How many of the pairs of a merged group are expected to be two people.
 *
 * All ways in which the group can fall into people are weighed by the chances of its pairs: who is alike two records of one person is
 * so more surely than by either. The pairs of `n` records are not so many witnesses, since each record speaks in `n - 1` of them, so
 * their log-odds count `2 / n` (a composite likelihood; Varin, Reid, Firth 2011, from memory).
 *
 * @param records at least two
 * @param chanceOf how likely two of them are one person, over 0 and under 1
 */
export function expectedWrong(records: readonly number[], chanceOf: (a: number, b: number) => number): number {
  const n = records.length;
  if (n === 2) return 1 - chanceOf(records[0]!, records[1]!);
  if (n > MOST_LOOKED_AT) {
    const some = Array.from({ length: MOST_LOOKED_AT }, (_, i) => records[Math.floor((i * n) / MOST_LOOKED_AT)]!);
    return (expectedWrong(some, chanceOf) * n * (n - 1)) / (MOST_LOOKED_AT * (MOST_LOOKED_AT - 1));
  }
  const chances = records.map((a, i) => records.map((b, j) => (i === j ? 1 : chanceOf(a, b))));
  if (n > LARGEST_GROUP) return wrongByWitness(chances);
  const together = chances.map((row) => row.map((chance) => 1 / (1 + ((1 - chance) / chance) ** (2 / n))));
  const personOf = new Array<number>(n).fill(0);
  let all = 0;
  let wrong = 0;
  const place = (i: number, people: number, weight: number, apart: number) => {
    if (i === n) {
      all += weight;
      wrong += weight * apart;
      return;
    }
    for (let person = 0; person <= people; person++) {
      personOf[i] = person;
      let [itsWeight, itsApart] = [weight, apart];
      for (let j = 0; j < i; j++) {
        if (personOf[j] === person) itsWeight *= together[i]![j]!;
        else {
          itsWeight *= 1 - together[i]![j]!;
          itsApart++;
        }
      }
      place(i + 1, Math.max(people, person + 1), itsWeight, itsApart);
    }
  };
  place(0, 0, 1, 0);
  return wrong / all;
}

/** Each pair by itself, or by the one other record that speaks best for both. */
function wrongByWitness(chances: readonly (readonly number[])[]): number {
  let wrong = 0;
  for (let i = 0; i < chances.length; i++)
    for (let j = 0; j < i; j++) wrong += 1 - Math.max(...chances[i]!.map((chance, k) => chance * chances[k]![j]!));
  return wrong;
}
