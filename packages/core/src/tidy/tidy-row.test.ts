import type { Column, Target } from '../model/target';
import { NO_LISTS } from '../model/word-lists';
import { tidier } from './tidy-row';

const lists = { ...NO_LISTS, freeMail: ['freepost.example'] };

const row = (cells: Partial<Record<Target, string>>, phoneCountry = 'GB') => {
  const columns = Object.keys(cells).map((target): Column => ({ name: target, target: target as Target }));
  return tidier({ phoneCountry, lists })(Object.values(cells), columns);
};

test('a column of the person’s own is called as they say, and read as its type', () => {
  const columns: Column[] = [
    { name: 'Name', target: 'fullName' },
    { name: 'Wheels p.a.', target: 'own', own: 'Wheels', type: 'number' },
    { name: 'Since', target: 'own', type: 'date' },
  ];
  const { extra, issues } = tidier({ phoneCountry: 'GB', lists: NO_LISTS })(
    ['Maren Oakhill', '1,250', 'long ago'],
    columns,
  );
  expect(extra).toEqual({ Wheels: '1250', Since: 'long ago' });
  expect(issues).toEqual([{ code: 'not-of-its-type', field: 'Since', input: 'long ago' }]);
});

test('first and last name in columns of their own keep what belongs to each', () => {
  const { person } = row({ firstName: 'dr. maren', lastName: 'VAN DER OAKHILL jr' });
  expect(person).toMatchObject({ firstName: 'Maren', lastName: 'van der Oakhill' });
  expect([person.honorific, person.suffix].join(' ').toLowerCase()).toBe('dr. jr');
});

test('honorific and suffix in columns win over what the name says', () => {
  expect(row({ fullName: 'Dr. Maren Oakhill', honorific: 'Prof. ★', suffix: 'III' }).person).toMatchObject({
    honorific: 'Prof.',
    suffix: 'III',
    firstName: 'Maren',
  });
});

test('a name that is tidy already is no change', () => {
  expect(row({ fullName: 'Maren Oakhill' }).changes).toEqual([]);
  expect(row({ company: 'Brackenfold', title: 'Owner', city: 'Wells' }).changes).toEqual([]);
});

test('the domain comes from the website, else from an address that is not a free mailbox', () => {
  expect(row({ email: 'm@shop.brackenfold.co.uk' }).person.domain).toBe('brackenfold.co.uk');
  expect(row({ email: 'm@freepost.example' }).person.domain).toBe('');
  expect(row({ email: 'm@one.example', website: 'https://www.two.example/about' }).person.domain).toBe('two.example');
});

// Numbers reserved for fiction (Ofcom; ComReg): 0113 496 0xxx in Britain, 020 91x xxxx in Ireland.
test('a phone without a country code is read in the country of the row, else in that of the job', () => {
  expect(row({ phone: '0113 496 0417' }, 'GB').person.phone).toBe('+441134960417');
  expect(row({ country: 'United Kingdom', phone: '0113 496 0417' }, 'FR').person.phone).toBe('+441134960417');
  expect(row({ country: 'France', phone: '0113 496 0417' }, 'GB').person).toMatchObject({ country: 'FR' });
});

test('what is no address, no link and no number is kept as an issue, not lost in silence', () => {
  const { person, issues } = row({ email: 'n/a', website: 'see card', profile: 'ask', phone: '12' });
  expect([person.email, person.domain, person.profile, person.phone]).toEqual(['', '', '', '']);
  expect(issues.map(({ code, input }) => [code, input])).toEqual([
    ['not-an-email', 'n/a'],
    ['not-a-link', 'see card'],
    ['not-a-link', 'ask'],
    ['not-a-phone', '12'],
    ['nothing-to-identify', ''],
  ]);
});

test('a cell with several values gives the first, says so, and keeps the others beside it', () => {
  const { person, extra, changes } = row({
    email: 'Maren@Tidewell.example; m.oakhill@tidewell.example, maren@tidewell.example',
    phone: '0113 496 0142 / 020 7946 0318',
    website: 'tidewell.example | https://www.sorrel.example/a,b',
  });
  expect(person).toMatchObject({
    email: 'maren@tidewell.example',
    phone: '+441134960142',
    domain: 'tidewell.example',
  });
  expect(extra).toEqual({
    'Other emails': 'm.oakhill@tidewell.example; maren@tidewell.example',
    'Other phones': '020 7946 0318',
  });
  expect(changes.filter(({ why }) => why.includes('first-of-several')).map(({ field }) => field)).toEqual([
    'email',
    'phone',
  ]);
  // Nor does a blank between them lose one; a name before an address is no second one.
  expect(row({ email: 'a@tidewell.example b@tidewell.example' }).extra).toEqual({
    'Other emails': 'b@tidewell.example',
  });
  expect(row({ email: 'Maren Oakhill <a@tidewell.example>' })).toMatchObject({
    person: { email: 'a@tidewell.example' },
    extra: {},
  });
  // What is no list of the kind is one value.
  expect(row({ phone: '0113 496 0142, ask for Maren' }).issues[0]).toMatchObject({ code: 'not-a-phone' });
});

test('a second column for one field, columns of one’s own and cells over the header are kept', () => {
  const columns: Column[] = [
    { name: 'Mail', target: 'email' },
    { name: 'Mail 2', target: 'email' },
    { name: 'Stand', target: 'own' },
    { name: 'Internal', target: 'skip' },
  ];
  const { extra, person } = tidier({ phoneCountry: 'GB', lists })(
    ['a@x.example', 'b@x.example', ' A7 ', 'secret', 'more'],
    columns,
  );
  expect(person.email).toBe('a@x.example');
  expect(extra).toEqual({ 'Mail 2': 'b@x.example', Stand: 'A7', 'Column 5': 'more' });
});

test('a region alone gives the country it lies in; unknown places stay as they were written', () => {
  expect(row({ region: 'Co. Mayo' }).person).toMatchObject({ region: 'Mayo', country: 'IE' });
  expect(row({ region: 'Middle Marches' }).person).toMatchObject({ region: 'Middle Marches', country: '' });
  expect(row({ country: 'Middlemarch ★' }).person.country).toBe('Middlemarch');
});

test('a street and a postcode are fields of their own', () => {
  expect(row({ street: '4 DAIRY LANE', postcode: ' ba5 2pn', city: 'wells' }).person).toMatchObject({
    street: '4 Dairy Lane',
    postcode: 'BA5 2PN',
    city: 'Wells',
  });
});
