import { likelyNext, paidFor } from './next-valid';

const order = [
  { who: 'cheap', found: 0.5, cents: 4 },
  { who: 'dear', found: 0.1, cents: 3 },
];

test('the next valid emails come from patterns, then from each finder at what those it alone knows cost', () => {
  expect(likelyNext(100, 0.2, order, 0)).toEqual([
    { who: '', count: 20, eachCents: 0 },
    { who: 'cheap', count: 40, eachCents: 8 },
    { who: 'dear', count: 8, eachCents: 30 },
  ]);
  // 100 people whose verifying costs 68 cents, borne by the 68 that are found.
  expect(likelyNext(100, 0.2, order, 0.68).map(({ eachCents }) => eachCents)).toEqual([1, 9, 31]);
  expect(likelyNext(0, 0.2, order, 1)).toEqual([]);
  expect(likelyNext(10, 0, [{ who: 'poor', found: 0, cents: 2 }], 0)).toEqual([]);
});

test('money ends within the finder that it does not last for', () => {
  const next = likelyNext(100, 0.2, order, 0);
  expect(paidFor(next, 160)).toBe(40);
  expect(paidFor(next, 350)).toBe(61);
  expect(paidFor(next, 9999)).toBe(68);
  expect(paidFor([{ who: '', count: 5, eachCents: 0 }], 0)).toBe(5);
});
