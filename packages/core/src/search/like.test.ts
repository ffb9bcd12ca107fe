import type { Search } from '../model/search';
import { describeCondition, proposeName } from './describe';
import { companyConditions, likeThese } from './like';
import { parseSearch } from './parse';
import { printSearch } from './print';

const read = (text: string): Search => parseSearch(text).search!;

test('a condition and a search are named in a few words', () => {
  const [teams, growth, none, open] = read(
    'companies where not sector: Equipment or Packaging or Consultancy or Foods; growth: 1..7; country: IE; employees: 8..',
  ).conditions;
  expect([teams, growth, none, open].map((given) => describeCondition(given!, 2))).toEqual([
    'Sector: not Equipment, Packaging and 2 more',
    'Headcount growth, %: 1 to 7',
    'Country: IE',
    'Headcount: 8 and up',
  ]);
  expect(proposeName(read('title: "quality manager" or technical; country: GB; not team: sales'))).toBe(
    'People · quality manager, technical · GB',
  );
  expect(proposeName(read(`title: ${'"a very long title indeed" or '.repeat(6)}x`)).length).toBeLessThanOrEqual(80);
});

test('more like some good companies: what at least half of them share, and ranges about their numbers', () => {
  const likes = likeThese('companies', [
    { sector: 'Cheese making', country: 'GB', technology: ['ERP', 'data loggers'], employees: 20, growth: 4 },
    { sector: 'Cheese making', country: 'IE', technology: ['ERP'], employees: 40, growth: null },
    { sector: 'Ice cream', country: 'GB', technology: [], employees: 30, growth: 8 },
  ]);
  const search = (at: number) => printSearch({ about: 'companies', conditions: [likes[at]!.condition] });
  expect(likes.map(({ shared }) => shared)).toEqual([3, 2, 2, 2, 2]);
  expect(search(0)).toBe('companies where employees: 0..60');
  expect(likes.map((_, i) => search(i))).toEqual(
    expect.arrayContaining([
      'companies where sector: Cheese making',
      'companies where country: GB',
      'companies where technology: "ERP"',
      'companies where growth: 0..12',
    ]),
  );
  expect(likeThese('people', [{}])).toEqual([]);
});

test('companies become an OR query of exact names, at most 500 each, no name twice', () => {
  const names = Array.from({ length: 1200 }, (_, i) => `Firm ${i % 1001}`);
  const conditions = companyConditions([...names, 'FIRM 3', ' ']);
  expect(conditions.map((given) => ('terms' in given ? given.terms.length : 0))).toEqual([500, 500, 1]);
  const line = printSearch({ about: 'people', conditions: conditions.slice(0, 1) });
  expect(read(line).conditions).toEqual(conditions.slice(0, 1));
});
