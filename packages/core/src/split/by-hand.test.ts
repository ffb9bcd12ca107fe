import type { Found, Search } from '../model/search';
import { fits } from '../search/evaluate';
import { parseSearch } from '../search/parse';
import { printSearch } from '../search/print';
import { seededRandom } from '../text/random';
import { joinBatches, splitHere } from './by-hand';

const read = (text: string): Search => parseSearch(text).search!;
const joined = (a: string, b: string) => {
  const both = joinBatches(read(a), read(b));
  return both && printSearch(both);
};

test('two batches become the one search that has just their rows', () => {
  expect(joined('title: x; team: quality', 'title: x; team: sales')).toBe(
    'people where title: x; team: quality or sales',
  );
  expect(joined('team: quality', 'not team: quality or sales')).toBe('people where not team: sales');
  expect(joined('title: x; team: quality', 'title: x; not team: quality')).toBe('people where title: x');
  expect(joined('not team: quality or sales', 'not team: quality or finance')).toBe('people where not team: quality');
  expect(joined('years: 1..4', 'years: 5..')).toBe('people where years: 1..');
  expect(joined('years: ..2', 'years: 7..9')).toBe('people where years: ..2 or 7..9');
  expect(joined('title: x', 'title: x; team: sales')).toBe('people where title: x');
  expect(joined('team: quality; level: head', 'team: sales; level: manager')).toBeNull();
  expect(joined('team: quality', 'level: manager')).toBeNull();
});

test('a batch is cut by one condition and joined again, without a row lost, over 300 random worlds', async () => {
  for (let seed = 1; seed <= 300; seed++) {
    const random = seededRandom(seed);
    const pick = (list: readonly string[]) => list[Math.floor(random() * list.length)]!;
    const rows = Array.from({ length: 1 + Math.floor(random() * 80) }, (): Found => ({
      team: pick(['quality', 'sales', 'production', 'finance', '']),
      years: random() < 0.2 ? null : Math.floor(random() * 12),
    }));
    const count = async (search: Search) => rows.filter((row) => fits(search, row)).length;
    const whole = read('people');
    for (const field of ['team', 'years']) {
      const parts = await splitHere(whole, field, { count, facet: async () => null });
      if (parts.length === 0) continue;
      expect(parts.length).toBeGreaterThan(1);
      expect(rows.every((row) => parts.filter(({ search }) => fits(search, row)).length === 1)).toBe(true);
      const [a, b] = parts;
      const both = joinBatches(a!.search, b!.search);
      if (both)
        expect(rows.every((row) => fits(both, row) === (fits(a!.search, row) || fits(b!.search, row)))).toBe(true);
    }
  }
});

test('what has one value only, or is no condition, cannot be cut', async () => {
  const counting = { count: async () => 5, facet: async () => new Map([['quality', 5]]) };
  expect(await splitHere(read('people'), 'team', counting)).toEqual([]);
  expect(await splitHere(read('people'), 'shoe', counting)).toEqual([]);
});
