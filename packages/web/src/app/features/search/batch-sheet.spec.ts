import { parseSearch } from '@sieve/core/search/parse';
import { printSearch } from '@sieve/core/search/print';
import { batchesIn, readSheet } from './batch-sheet';

const whole = parseSearch('title: technical').search!;
const read = (text: string, kept: number[] = []) => {
  const sheet = readSheet(text);
  return batchesIn(sheet, sheet.searchColumn, new Set(kept), whole);
};

const SHEET = [
  'Batch\tSearch\tCount',
  'Team: quality\tpeople where title: technical; team: quality\t1,200',
  'x\t"people where title: ""a b""; not team: quality"\t90',
  '',
].join('\r\n');

it('plain lines are searches, with or without the word for what is searched', () => {
  const { batches, problem } = read('title: technical; team: sales\n\npeople where title: technical; team: quality');
  expect(problem).toBe('');
  expect(batches.map(({ search }) => printSearch(search))).toEqual([
    'people where title: technical; team: sales',
    'people where title: technical; team: quality',
  ]);
});

it('rows of a sheet have their searches found in whatever column, and the header is none', () => {
  const sheet = readSheet(SHEET);
  expect(sheet).toMatchObject({ columns: ['Batch', 'Search', 'Count'], searchColumn: 1 });
  const { batches } = batchesIn(sheet, 1, new Set([0, 2]), whole);
  expect(batches.map(({ search }) => printSearch(search))).toEqual([
    'people where title: technical; team: quality',
    'people where title: "a b"; not team: quality',
  ]);
  expect(batches.map(({ kept }) => kept)).toEqual([
    { Batch: 'Team: quality', Count: '1,200' },
    { Batch: 'x', Count: '90' },
  ]);
});

it('a sheet without a header has numbered columns; the search column is never kept twice', () => {
  const { batches } = read('Leeds\tpeople where team: sales', [0, 1]);
  expect(batches[0]!.kept).toEqual({ 'Column 1': 'Leeds' });
});

it('the line that cannot be read is named', () => {
  expect(read('team: quality\nteam: cheese')).toEqual({
    batches: [],
    problem: 'Line 2: “cheese” is not one of the values of this condition.',
  });
});
