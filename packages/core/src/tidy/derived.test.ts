import { NO_LISTS } from '../model/word-lists';
import { derivedValue, partsOf, widthOf } from './derived';
import { tidier } from './tidy-row';

test('a cell is split by a separator, a pattern, or as what it is', () => {
  expect(partsOf(' a; b ;c', { how: 'separator', text: ';' })).toEqual(['a', 'b', 'c']);
  expect(partsOf('a b c d e f g h', { how: 'separator', text: ' ' })).toEqual(['a', 'b', 'c', 'd', 'e', 'f g h']);
  expect(partsOf('Brackenfold (Wells)', { how: 'pattern', text: '* (*)' })).toEqual(['Brackenfold', 'Wells']);
  expect(partsOf('[12] Edale: Bakewell', { how: 'pattern', text: '[*] *: *' })).toEqual(['12', 'Edale', 'Bakewell']);
  expect(partsOf('Edale', { how: 'pattern', text: '* (*)' })).toEqual(['Edale']);
  expect(partsOf('Dr. Maren van der Meer', { how: 'name', text: '' })).toEqual(['Maren', '', 'van der Meer']);
  expect(partsOf('Brackenfold / Technical Manager', { how: 'firm-title', text: '' })).toEqual([
    'Brackenfold',
    'Technical Manager',
  ]);
  expect(partsOf('Head of Quality, Edale', { how: 'firm-title', text: '' })).toEqual(['Edale', 'Head of Quality']);
  expect(partsOf('Wells, Somerset', { how: 'town-county', text: '' })).toEqual(['Wells', 'Somerset']);
});

test('columns made of others are read with the row; the table keeps its width', () => {
  const columns = [
    { name: 'Who', target: 'skip' as const },
    { name: 'Street', target: 'skip' as const },
    { name: 'No', target: 'skip' as const },
    {
      name: 'Firm',
      target: 'company' as const,
      from: { kind: 'part' as const, column: 0, by: { how: 'firm-title' as const, text: '' }, part: 0 },
    },
    {
      name: 'Title',
      target: 'title' as const,
      from: { kind: 'part' as const, column: 0, by: { how: 'firm-title' as const, text: '' }, part: 1 },
    },
    { name: 'Whole street', target: 'own' as const, from: { kind: 'join' as const, columns: [2, 1], between: ' ' } },
  ];
  expect(widthOf(columns)).toBe(3);
  const { person, extra } = tidier({ phoneCountry: 'GB', lists: NO_LISTS })(
    ['Edale / Owner', 'Mill Lane', '14', 'over the width'],
    columns,
  );
  expect([person.company, person.title, extra]).toEqual([
    'Edale',
    'Owner',
    { 'Column 4': 'over the width', 'Whole street': '14 Mill Lane' },
  ]);
  expect(derivedValue(['a'], { kind: 'join', columns: [0, 5], between: ' ' })).toBe('a');
});
