import { emptyPerson, type Person } from '../model/person';
import { matchPeople } from './match';
import { LEAST_JUDGED, taughtBits, teach, type JudgedPair } from './taught';

const judgedPairs = (n: number): JudgedPair[] =>
  Array.from({ length: n }, (_, i) => ({
    levels: [4, i % 3 === 0 ? 0 : 2, 1 + (i % 4)],
    bits: (i % 5) - 2,
    same: i % 4 === 1 || i % 7 === 0,
  }));

test('too few judgements teach nothing', () => {
  expect(teach(judgedPairs(LEAST_JUDGED - 1))).toBeNull();
  expect(taughtBits(null, [1, 2])).toBe(0);
});

test('what is taught is likeliest under the prior: each gradient of the penalised likelihood is nothing', () => {
  const judged = judgedPairs(40);
  const taught = teach(judged)!;
  const prior = 1 / (1.5 * Math.LN2) ** 2;
  for (const [field, levels] of taught.entries())
    for (const [level, bits] of levels.entries()) {
      const gradient = judged
        .filter((pair) => level > 0 && pair.levels[field] === level)
        .reduce(
          (sum, pair) => sum + 1 / (1 + 2 ** -(pair.bits + taughtBits(taught, pair.levels))) - Number(pair.same),
          bits * Math.LN2 * prior,
        );
      expect(Math.abs(gradient)).toBeLessThan(1e-3);
    }
});

test('what a person says of some pairs is taken of others that show the same', () => {
  const person = (n: number, values: Partial<Person>): Person => ({
    ...emptyPerson(),
    firstName: ['Maren', 'Idris', 'Nuala', 'Tobias', 'Piotr', 'Carys'][n % 6]!,
    lastName: `${'Oakhill Venn Farrow Lind Redfern Holm Sand Marl Tide Brack'.split(' ')[n % 10]!}${'aeiou'[n % 5]}${'rst'[n % 3]}`,
    city: `Town ${n}`,
    title: 'Owner',
    ...values,
  });
  // Each twice: the same name and firm, in another town.
  const people = Array.from({ length: 60 }, (_, n) => [
    person(n, { company: `Dairy ${n}` }),
    person(n, { company: `Dairy ${n}`, city: `Elsewhere ${n}`, title: 'Head of Quality' }),
  ]).flat();
  const lines = { mergeFrom: 0.95, judgeFrom: 0.01 };
  const pair = (n: number): [number, number] => [2 * n, 2 * n + 1];
  const some = Array.from({ length: 20 }, (_, n) => pair(n));
  const mergedOf = ({ roots }: ReturnType<typeof matchPeople>) =>
    Array.from({ length: 40 }, (_, n) => pair(n + 20)).filter(([a, b]) => roots[a] === roots[b]).length;
  expect(mergedOf(matchPeople(people, lines))).toBe(40);
  const taught = matchPeople(people, lines, [], some);
  expect(taught.taught).toMatchObject({ judged: 20 });
  expect(taught.taught!.moved).toBeGreaterThan(30);
  expect(mergedOf(taught)).toBeLessThan(10);
});
