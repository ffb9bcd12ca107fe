import { ownTypeOf, ownValue } from './own-value';

test.each([
  ['1,250', '1250'],
  ['1.250,50', '1250.5'],
  ['1,250.50', '1250.5'],
  ['1.250.000', '1250000'],
  ["1'250", '1250'],
  ['1 250', '1250'],
  ['€ 12,5', '12.5'],
  ['(40)', '-40'],
  ['−3', '-3'],
  ['12 %', '12'],
  ['0.125', '0.125'],
  ['n/a', null],
  ['+353 1 200 1234', null],
])('%s is the number %s', (input, is) => expect(ownValue('number', input)).toBe(is));

// ISO 8601; day before month as in en-GB, de, fr, es, it, nl (CLDR short dates).
test.each([
  ['2026-11-03', '2026-11-03'],
  ['2026-11-03T08:00:00Z', '2026-11-03'],
  ['03/11/2026', '2026-11-03'],
  ['11/23/2026', null],
  ['3.11.26', '2026-11-03'],
  ['3 November 2026', '2026-11-03'],
  ['Nov 3rd, 2026', '2026-11-03'],
  ['3. März 2026', '2026-03-03'],
  ['29/02/2024', '2024-02-29'],
  ['29/02/2026', null],
  ['31/11/2026', null],
  ['soon', null],
])('%s is the date %s', (input, is) => expect(ownValue('date', input)).toBe(is));

test('yes and no in the words of lists, and what a column is by all of its values', () => {
  expect(['Y', 'ja', 'Oui', 'x', 'No', 'nein', '0', 'maybe'].map((one) => ownValue('yes-no', one))).toEqual([
    ...['yes', 'yes', 'yes', 'yes', 'no', 'no', 'no'],
    null,
  ]);
  expect(ownTypeOf(['1', '0', '1'])).toBe('number');
  expect(ownTypeOf(['yes', 'no'])).toBe('yes-no');
  expect(ownTypeOf(['007', '12'])).toBe('text');
  expect(ownTypeOf(['12', '1,400'])).toBe('number');
  expect(ownTypeOf(['12/03/2026', '2026-01-01'])).toBe('date');
  expect(ownTypeOf(['12/03/2026', 'later'])).toBe('text');
  // One value that can only begin with the month says it of all.
  const american = ['03/11/2026', '11/23/2026'];
  expect(ownTypeOf(american)).toBe('month-date');
  expect(american.map((one) => ownValue('month-date', one))).toEqual(['2026-03-11', '2026-11-23']);
  expect(ownTypeOf(['23/11/2026', '11/23/2026'])).toBe('text');
  expect(ownTypeOf([])).toBe('text');
});
