import Papa from 'papaparse';
import { estimateAppend } from '../forecast/estimate';
import { wilson } from '../forecast/wilson';
import { exportBatches } from './export-batches';
import { csvLine, harmless } from './harmless';

// OWASP, CSV Injection: cells that begin with = + - @, tab or carriage return.
test.each([
  '=1+1',
  '+cmd',
  '-2+3',
  '@SUM(A1)',
  '\t=1',
  '\r=1',
  '=HYPERLINK("http://trap.example")',
  '＝1',
  ' =1',
  '\u200b=1',
  '\u202e=1',
  '\0=1',
  '\u001f=1',
  '\ufeff\u200b-cmd',
])('%j is made harmless', (cell) => expect(harmless(cell)).toBe(`'${cell}`));
test.each(['+441134960417', '+12015550123;ext=22', '-12.5', 'Maren', 'a=b', ''])('%j stays as it is', (cell) =>
  expect(harmless(cell)).toBe(cell),
);

// RFC 4180, read back by papaparse.
test('lines are read back as they were', () => {
  const rows = [
    ['a,b', 'say "so"', 'two\nlines', ' edge ', ''],
    ['é', '"', ',', '\r\n', 'x'],
  ];
  expect(Papa.parse(rows.map(csvLine).join('\r\n')).data).toEqual(rows);
});

test('batches hold every row once, and their names sort', () => {
  const words = { job: 'Cheese makers, UK & Ireland', date: '2026-11-24' };
  expect(exportBatches(450, 200, '{job}-{n}', 'csv', words).map(({ name, rows }) => [name, rows])).toEqual([
    ['cheese-makers-uk-ireland-1.csv', 200],
    ['cheese-makers-uk-ireland-2.csv', 200],
    ['cheese-makers-uk-ireland-3.csv', 50],
  ]);
  expect(exportBatches(2200, 200, 'x', 'csv', words)[0]!.name).toBe('x-01.csv');
  expect(exportBatches(10, 0, '../../{date}', 'xlsx', words)).toEqual([{ name: '2026-11-24.xlsx', from: 0, rows: 10 }]);
  for (const total of [1, 199, 200, 201, 999])
    expect(exportBatches(total, 200, '{n}', 'csv', words).reduce((sum, { rows }) => sum + rows, 0)).toBe(total);
});

test.each([
  '{job}-{n}',
  '{n}',
  'x',
  '{n}{n}{n}{n}',
  '{job} {date} {n} of many',
  '{constructor}',
  '{n}'.repeat(33),
  '☃',
  '{N}',
])('whatever is cut from %s, no two files have one name', (pattern) => {
  for (const job of ['a'.repeat(100), 'b'.repeat(300), '', 'con', '☃'])
    for (const total of [1, 40, 1200]) {
      const names = exportBatches(total, 4, pattern, 'csv', { job, date: '2026-11-24' }).map(({ name }) => name);
      expect(new Set(names).size).toBe(Math.ceil(total / 4));
      expect(
        names.filter((name) => name.length > 120 || !/^[\w][\w.-]*\.csv$/.test(name) || /^con\./.test(name)),
      ).toEqual([]);
    }
});

// Wilson 1927; the values for 8 of 10 are the textbook's .490 and .943, from memory.
test('Wilson interval', () => {
  expect(wilson(8, 10).low).toBeCloseTo(0.49, 2);
  expect(wilson(8, 10).high).toBeCloseTo(0.943, 3);
  expect(wilson(0, 0)).toEqual({ low: 0, high: 1 });
});

// Facts of the trade (common practice, no source): 50 valid at 0.15 are 7.50; 1,034 people take about 32 minutes.
test('an estimate keeps to the trade’s figures and to the budget', () => {
  const seen = { tried: 100_000, byPattern: 0, byFinder: 50_000 };
  expect(estimateAppend(100, seen, 15, 100_000).cost.likelyCents).toBe(750);
  expect(Math.round(estimateAppend(1034, seen, 15, 100_000).seconds / 60)).toBe(32);
  // What finders are known to find and cost stands in place of the price: all lack an address here, two cents each.
  const known = estimateAppend(100, seen, 15, 100_000, undefined, 15, {
    ...{ found: 0.4, cents: 2, squares: 30, people: 100_000 },
  });
  expect([known.cost.likelyCents, known.valid.likely]).toEqual([200, 40]);
  const short = estimateAppend(100, seen, 15, 300);
  expect(short).toMatchObject({ budgetMayEnd: true, cost: { likelyCents: 300, mostCents: 300 } });
  expect(short.valid.likely).toBe(20);
});
