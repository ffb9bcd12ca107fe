import type { DecisionBody } from './decision';
import { emptyPerson } from '../model/person';
import type { TidyRow } from '../tidy/tidy-row';
import { applyEdits } from './apply-edits';
import { NO_LISTS } from '../model/word-lists';
import { rowSifter } from '../sift/sift-row';
import { sortDecisions } from './sort-decisions';

const row: TidyRow = {
  person: { ...emptyPerson(), company: 'Brackenfold', title: 'Owner' },
  extra: {},
  changes: [
    { field: 'company', was: 'BRACKENFOLD LTD', is: 'Brackenfold', why: ['capitals'] },
    { field: 'title', was: 'owner', is: 'Owner', why: ['capitals'] },
  ],
  issues: [],
};
const decided = (...bodies: DecisionBody[]) => sortDecisions(bodies.map((body, i) => ({ id: i + 1, body })));
const fields = ({ person, changes }: TidyRow) => [person.company, person.title, changes.map(({ field }) => field)];

test('a row that nobody spoke of is the very same object', () => {
  expect(applyEdits(1, row, decided({ kind: 'edit', recordIds: [2], field: 'title', value: 'Chair' }))).toBe(row);
});

test('a refused change is as it came, in one row or wherever the same was made of the same', () => {
  const one = decided({ kind: 'refuse', recordId: 1, field: 'company' });
  expect(fields(applyEdits(1, row, one))).toEqual(['BRACKENFOLD LTD', 'Owner', ['title']]);
  expect(applyEdits(2, row, one)).toBe(row);
  const all = decided({ kind: 'refuse-like', field: 'company', was: 'BRACKENFOLD LTD', is: 'Brackenfold' });
  expect(fields(applyEdits(2, row, all))).toEqual(['BRACKENFOLD LTD', 'Owner', ['title']]);
  const other = decided({ kind: 'refuse-like', field: 'company', was: 'Brackenfold Ltd', is: 'Brackenfold' });
  expect(applyEdits(2, row, other)).toBe(row);
});

test('what was written by hand wins over a refusal, the later over the earlier, and says what was', () => {
  const given = applyEdits(
    1,
    row,
    decided(
      { kind: 'edit', recordIds: [1], field: 'company', value: 'Brackenfold Dairy' },
      { kind: 'refuse', recordId: 1, field: 'company' },
      { kind: 'edit', recordIds: [1], field: 'company', value: 'Brackenfold Creamery' },
    ),
  );
  expect(given.person.company).toBe('Brackenfold Creamery');
  expect(given.changes.find(({ field }) => field === 'company')).toEqual({
    field: 'company',
    was: 'BRACKENFOLD LTD',
    is: 'Brackenfold Creamery',
    why: ['edited'],
  });
  expect(row.person.company).toBe('Brackenfold');
});

test('pairs are judged once, by the last word; a contact taken apart is one group of which no two are one person', () => {
  const { same, different } = decided(
    { kind: 'same', a: 5, b: 2 },
    { kind: 'different', a: 2, b: 5 },
    { kind: 'apart', recordIds: [7, 8, 9] },
    { kind: 'same', a: 9, b: 7 },
  );
  expect(same).toEqual([[7, 9]]);
  expect(different).toEqual([
    [7, 8, 9],
    [2, 5],
  ]);
});

test('a row to sift is the record tidied, with what was said of it', () => {
  const columns = [
    { name: 'Name', target: 'fullName' as const },
    { name: 'Firm', target: 'company' as const },
  ];
  const said = decided({ kind: 'edit', recordIds: [2], field: 'company', value: 'Hollin' });
  const rows = [1, 2].map((id) =>
    rowSifter({ phoneCountry: 'GB', lists: NO_LISTS }, said)(id, ['MAREN OAKHILL', 'Brackenfold'], columns),
  );
  expect(rows.map(({ person, changes }) => [person.lastName, person.company, changes])).toEqual([
    ['Oakhill', 'Brackenfold', 2],
    ['Oakhill', 'Hollin', 3],
  ]);
  expect(rowSifter({ phoneCountry: 'GB', lists: NO_LISTS }, said)(3, ['', 'Brackenfold'], columns).nobody).toBe(true);
});

test('a choice among merged records takes back what was written before of the same fields, not what is written after', () => {
  const write: DecisionBody = { kind: 'edit', recordIds: [1, 2], field: 'title', value: 'Chair' };
  const take: DecisionBody = { kind: 'choose', recordIds: [1, 2], recordId: 2, field: 'level' };
  expect(decided(write, take).edits.get(1)?.get('title')).toBeUndefined();
  expect(decided(take, write).edits.get(1)?.get('title')).toBe('Chair');
});
