import { rowsToGo } from '../forecast/rows-to-go';
import { wilson } from '../forecast/wilson';
import { seededRandom } from '../text/random';
import { tightenings, type Arrival } from './tighten';

const row = (title: string, fits: boolean, more: Partial<Arrival> = {}): Arrival => ({
  title,
  company: 'Brackenfold',
  sector: '',
  region: '',
  country: '',
  fits,
  ...more,
});
const many = <T>(n: number, one: (i: number) => T) => Array.from({ length: n }, (_, i) => one(i));
/** In no order that a half could follow. */
function shuffled<T>(rows: T[]): T[] {
  const random = seededRandom(5);
  return rows
    .map((row) => ({ row, at: random() }))
    .sort((a, b) => a.at - b.at)
    .map(({ row }) => row);
}

test('what most misfits share and few of those that fit is to be left out, each on top of the one before', () => {
  const rows = shuffled([
    ...many(300, () => row('Quality Manager', true)),
    ...many(2, () => row('Assistant Quality Manager', true)),
    ...many(120, () => row('Assistant Quality Manager', false)),
    ...many(80, () => row('Quality Manager', false, { sector: 'Packaging' })),
    ...many(20, () => row('Quality Manager', false)),
  ]);
  const advice = tightenings(rows);
  expect(advice.map(({ field, text }) => [field, text])).toEqual([
    ['title', 'assistant'],
    ['sector', 'Packaging'],
  ]);
  // Counted on the half that it was not chosen by: near the truth, 120 and 2, then 80 and none.
  expect(Math.abs(advice[0]!.misfits - 120)).toBeLessThan(25);
  expect(advice[0]!.fits).toBeLessThanOrEqual(8);
  expect(Math.abs(advice[1]!.misfits - 80)).toBeLessThan(25);
  expect(advice[1]!.fits).toBe(0);
});

test('words that stand among the misfits by chance are no advice', () => {
  const random = seededRandom(9);
  const rows = many(2000, () => row(many(3, () => `w${Math.floor(random() * 400)}x`).join(' '), random() < 0.5));
  expect(tightenings(rows)).toEqual([]);
  expect(tightenings([])).toEqual([]);
});

test('rows still to go at the rate of those that came, with its interval', () => {
  const share = { ...wilson(300, 1000), likely: 0.3 };
  // Wilson 1927 for 300 of 1,000: .2724 to .3291, worked by hand.
  expect(rowsToGo(share, 90)).toEqual({ low: 274, likely: 300, high: 331 });
  expect(rowsToGo(share, 0)).toBeNull();
  expect(rowsToGo({ low: 0, likely: 0, high: 0.1 }, 5)).toBeNull();
});
