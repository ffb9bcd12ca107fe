import { expectedWrong } from './wrong-merges';

const by =
  (...chances: [number, number, number][]) =>
  (a: number, b: number) =>
    chances.find(([x, y]) => (x === a && y === b) || (x === b && y === a))![2];

test('of two records it is what their chance leaves', () => {
  expect(expectedWrong([4, 9], by([4, 9, 0.9]))).toBeCloseTo(0.1, 12);
});

test('of three it is what all five ways to fall into people weigh', () => {
  // By hand: odds 9, 9, 4 to the power of 2/3 as chances, then every partition by its product.
  const [p, q, r] = [9, 9, 4].map((odds) => odds ** (2 / 3) / (1 + odds ** (2 / 3))) as [number, number, number];
  const ways = [
    [p * q * r, 0],
    [p * (1 - q) * (1 - r), 2],
    [(1 - p) * q * (1 - r), 2],
    [(1 - p) * (1 - q) * r, 2],
    [(1 - p) * (1 - q) * (1 - r), 3],
  ] as const;
  const all = ways.reduce((sum, [weight]) => sum + weight, 0);
  const wrong = ways.reduce((sum, [weight, apart]) => sum + weight * apart, 0) / all;
  expect(expectedWrong([0, 1, 2], by([0, 1, 0.9], [0, 2, 0.9], [1, 2, 0.8]))).toBeCloseTo(wrong, 12);
});

test('a third record that is alike both speaks for the two, in a large group as in a small one', () => {
  const alike = (doubted: number) => (a: number, b: number) => (a + b === 1 ? doubted : 0.999);
  for (const size of [3, 4, 6, 7, 9]) {
    const records = Array.from({ length: size }, (_, i) => i);
    const wrong = expectedWrong(records, alike(0.5));
    expect(wrong).toBeGreaterThanOrEqual(0);
    expect(wrong).toBeLessThan(0.5);
  }
  // Of a very large one some records tell for all of its 19,900 pairs.
  const many = Array.from({ length: 200 }, (_, i) => i);
  expect(expectedWrong(many, () => 0.999)).toBeCloseTo(19.9, 6);
});
