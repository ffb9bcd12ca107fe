import { emptyPerson, type Person } from '../model/person';
import { suppressionEntry, type Suppression } from '../model/suppression';
import { readSuppression, suppressionKey, suppressionOf, suppressor } from './suppression';

const person = (values: Partial<Person>): Person => ({ ...emptyPerson(), ...values });
const listOf = (text: string): Suppression =>
  new Map(
    readSuppression(text, 'GB').entries.map((entry) => [suppressionKey(entry), suppressionEntry.parse(entry)] as const),
  );

test('a line names a person by what it holds, or a firm; what names nobody is given back', () => {
  const { entries, refused } = readSuppression(
    [
      'Maren.Oakhill@Tidewell.example; @arranmor.example',
      'https://www.waymark.example/in/maren/',
      '0113 496 0417',
      'Maren Oakhill, Brackenfold Dairy Ltd',
      'Brackenfold Dairy Ltd',
      'nobody',
      'joe@',
      ' ',
    ].join('\n'),
    'GB',
  );
  expect(entries.map(({ kind, value }) => `${kind}: ${value}`)).toEqual([
    'email: maren.oakhill@tidewell.example',
    'domain: arranmor.example',
    'profile: waymark.example/in/maren',
    'phone: +441134960417',
    'person: Maren Oakhill, Brackenfold Dairy Ltd',
    'company: Brackenfold Dairy Ltd',
  ]);
  expect(refused).toEqual(['nobody', 'joe@']);
});

test('who is named in another spelling is named, and a namesake elsewhere is not', () => {
  const kindOf = (text: string, values: Partial<Person>) => suppressor(listOf(text))(person(values))?.kind;
  const maren = { firstName: 'Maren', lastName: 'Oakhill', company: 'BRACKENFOLD DAIRY LIMITED' };
  expect(kindOf('Maren Oakhill, Brackenfold Dairy Ltd', maren)).toBe('person');
  expect(kindOf('Maren Oakhill, Brackenfold Dairy Ltd', { ...maren, company: 'Tidewell' })).toBeUndefined();
  expect(kindOf('Brackenfold Dairy', { company: 'Brackenfold Dairy GmbH' })).toBe('company');
  expect(kindOf('brackenfold.example', { email: 'm@mail.brackenfold.example' })).toBe('domain');
  expect(kindOf('brackenfold.example\nm@brackenfold.example', { email: 'm@brackenfold.example' })).toBe('email');
  expect(kindOf('+44 113 496 0417', { phone: '+441134960417' })).toBe('phone');
  expect(kindOf('', maren)).toBeUndefined();
});

test('a row of a list names its person by all that is known of them, else its line or its firm', () => {
  const kinds = (values: Partial<Person>) => suppressionOf(person(values)).map(({ kind }) => kind);
  const firm = { company: 'Tidewell', domain: 'tidewell.example', phone: '+441134960417' };
  expect(kinds({ ...firm, firstName: 'Maren', lastName: 'Oakhill', email: 'm@t.example' })).toEqual([
    'email',
    'person',
  ]);
  expect(kinds(firm)).toEqual(['phone']);
  expect(kinds({ ...firm, phone: '' })).toEqual(['domain', 'company']);
  expect(kinds({ title: 'Owner' })).toEqual([]);
});
