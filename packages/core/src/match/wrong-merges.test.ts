import { seededRandom } from '../text/random';
import { expectedWrong } from './wrong-merges';

/** People of one, two, three records, of whom some pairs are taken for one: what comes of it, and how many pairs are wrong. */
function mistaken(people: readonly number[], times: number, random: () => number) {
  const groups = people.flatMap((n, i) => Array.from({ length: n }, () => i + 1));
  let wrong = 0;
  for (let k = 0; k < times; k++) {
    const [i, j] = [0, 0].map(() => groups.splice(Math.floor(random() * groups.length), 1)[0]!) as [number, number];
    wrong += i * j;
    groups.push(i + j);
  }
  const sizes = new Map<number, number>();
  for (const size of groups) sizes.set(size, (sizes.get(size) ?? 0) + 1);
  return { sizes, wrong };
}

const sum = (numbers: readonly number[]) => numbers.reduce((a, b) => a + b, 0);

test('groups larger than anybody has records tell how far the pairs can be believed', () => {
  const random = seededRandom(8);
  const lists = Array.from({ length: 40 }, () => mistaken([2400, 1200, 400], 12, random));
  for (const off of [0.5, 1, 2]) {
    const said = lists.map(({ sizes, wrong }) => expectedWrong(sizes, wrong * off));
    // What the pairs say is off by a factor of two either way: what is said, by less than 1.4.
    const ratio = sum(said) / sum(lists.map(({ wrong }) => wrong));
    expect([off, ratio > (off < 1 ? 0.72 : 0.9) && ratio < (off > 1 ? 1.4 : 1.1)]).toEqual([off, true]);
  }
});

test('where no size breaks off, each pair speaks for itself', () => {
  const natural = new Map([1000, 300, 90, 27, 8, 3, 1].map((groups, i) => [i + 1, groups]));
  expect(expectedWrong(natural, 4.2)).toBe(4.2);
  expect(expectedWrong(new Map([[1, 50]]), 0)).toBe(0);
  expect(expectedWrong(new Map(), 0)).toBe(0);
});

test('who is in one source more, or in a list that was brought in twice, is not taken for two people', () => {
  const aFewInOneMore = new Map([1000, 400, 12].map((groups, i) => [i + 1, groups]));
  expect(expectedWrong(aFewInOneMore, 0.4)).toBeCloseTo(0.4, 1);
  const twice = new Map([
    [2, 1000],
    [4, 300],
    [6, 100],
  ]);
  expect(expectedWrong(twice, 0.5)).toBeLessThan(1);
});
