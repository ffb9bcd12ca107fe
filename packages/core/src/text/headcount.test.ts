import { headcountRange } from './headcount';

test.each([
  ['120', 120, 120],
  ['51-200', 51, 200],
  ['11 to 50 people', 11, 50],
  ['201 – 500', 201, 500],
  ['1,001 - 5,000', 1001, 5000],
  ['10.000+', 10_000, Infinity],
  ['over 500', 500, Infinity],
  ['under 10', 0, 10],
])('%s means %d to %d', (text, from, to) => expect(headcountRange(text)).toEqual({ from, to }));

test.each(['', 'many', '1-2-3'])('%j is no headcount', (text) => expect(headcountRange(text)).toBeNull());
