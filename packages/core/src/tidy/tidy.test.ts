import { fixture } from '../fixtures/read';
import { companyReader, parseCompany } from './company-name';
import { normaliseEmail } from './email';
import { canonicalLink, registrableDomain } from './link';
import { nameReader, parseName } from './person-name';
import { nameFromEmail } from './name-from-email';
import { parsePhone, phonePlan, type PhonePlan } from './phone';
import { parsePlace } from './place';
import { NO_LISTS } from '../model/word-lists';
import { tidier } from './tidy-row';
import { parseTitle } from './title';
import { peopleIn } from './two-people';
import { CREDENTIALS, HONORIFICS, PARTICLES, SUFFIXES } from '../words/person';

// python3-nameparser 1.1.2 and five other parsers; asserted where at least four of the six agree.
// They put 山田 first, as if it were given: Japanese names have the family name first (Unicode CLDR, person names), see below.
const agreed = fixture('names.csv').filter(
  (row) => Number(row['libraries_that_agree_on_first_and_last']![0]) >= 4 && row['name'] !== '山田 太郎',
);
test.each(agreed)('$name is taken apart as four parsers do', (row) => {
  const name = parseName(row['name']!);
  expect([name.firstName, name.lastName].join('|').toLowerCase()).toBe(`${row['first']}|${row['last']}`.toLowerCase());
});

test.each([
  ['★ Dr. MAREN OAKHILL, PhD', 'Maren', '', 'Oakhill'],
  ['OAKHILL Maren', 'Maren', '', 'Oakhill'],
  ['ludwig van der meer', 'Ludwig', '', 'van der Meer'],
  ["SEAN O'CONNOR", 'Sean', '', "O'Connor"],
  ['rhona MACASKILL', 'Rhona', '', 'MacAskill'],
  ['FIONA MCGARRIGLE', 'Fiona', '', 'McGarrigle'],
  ['oluchi benson-reyes', 'Oluchi', '', 'Benson-Reyes'],
  ['🧀 Aoife Brannagh | Cheese is life', 'Aoife', '', 'Brannagh'],
  ['𝗠𝗮𝗿𝗲𝗻 Oakhill', 'Maren', '', 'Oakhill'],
  ['Jane Doe FRSA', 'Jane', '', 'Doe'],
])('%s', (input, first, middle, last) => {
  expect(parseName(input)).toMatchObject({ firstName: first, middleName: middle, lastName: last });
});

// The order by language: Unicode CLDR 44, person names, nameOrderLocales (surnameFirst: ja ko zh); the names are invented, their reading from memory.
test.each([
  ['山田 太郎', '太郎', '', '山田'],
  ['王小明', '小明', '', '王'],
  ['欧阳小明', '小明', '', '欧阳'],
  ['김민준', '민준', '', '김'],
  ['ジョン・スミス', 'ジョン', '', 'スミス'],
  ['Иванов Пётр Сергеевич', 'Пётр', 'Сергеевич', 'Иванов'],
  ['Пётр Сергеевич Иванов', 'Пётр', 'Сергеевич', 'Иванов'],
  ['КОВАЛЕНКО Олена', 'Олена', '', 'КОВАЛЕНКО'],
  ['Ελένη Παππά', 'Ελένη', '', 'Παππά'],
  ['عبد الله بن سالم', 'عبد الله', '', 'بن سالم'],
])('%s in its own script', (input, first, middle, last) => {
  expect(parseName(input)).toMatchObject({ firstName: first, middleName: middle, lastName: last });
});

test.each([
  ['Maren Oakhill & Idris Venn', ['Maren Oakhill', 'Idris Venn']],
  ['John and Jane Doe', ['John Doe', 'Jane Doe']],
  ['Mr. and Mrs. Doe', ['Mr. Doe', 'Mrs. Doe']],
  ['Maren Oakhill / Idris Venn; Nuala Farrow', ['Maren Oakhill', 'Idris Venn', 'Nuala Farrow']],
  ['Juan Velasquez y Garcia', ['Juan Velasquez y Garcia']],
  ['Oakhill and sons', ['Oakhill and sons']],
  ['Maren Oakhill, PhD', ['Maren Oakhill, PhD']],
])('%s are so many people', (cell, people) => expect(peopleIn(cell)).toEqual(people));

test('one cell with two people: the first comes in, the other stands beside it, and it is said', () => {
  const columns = [{ name: 'Name', target: 'fullName' as const }];
  const { person, extra, issues } = tidier({ phoneCountry: 'GB', lists: NO_LISTS })(
    ['Maren Oakhill & Idris Venn'],
    columns,
  );
  expect(person).toMatchObject({ firstName: 'Maren', lastName: 'Oakhill' });
  expect(extra).toEqual({ 'Other people': 'Idris Venn' });
  expect(issues.map(({ code }) => code)).toEqual(['two-people']);
});

test('legal forms and parts of names of one’s own go before those that ship', () => {
  expect(companyReader(['Sp. z o.o.'])('Larkfell sp. z o.o.')).toMatchObject({
    name: 'Larkfell',
    legalForm: 'Sp. z o.o.',
  });
  const read = nameReader([
    { word: 'baroness', is: 'honorific' },
    { word: 'ma', is: 'particle' },
  ]);
  expect(read('Baroness Jane ma Doe')).toMatchObject({ honorific: 'Baroness', firstName: 'Jane', lastName: 'ma Doe' });
  expect(read('Jane Doe MBA')).toMatchObject({ lastName: 'Doe' });
});

test('a plain name is read as any other name is, which a space behind it makes it', () => {
  const capital = (word: string) => word.slice(0, 1).toUpperCase() + word.slice(1);
  const words = [...HONORIFICS, ...SUFFIXES, ...CREDENTIALS, ...PARTICLES, 'x', 'maren', 'oakhill'].map(capital);
  for (const a of words)
    for (const name of [a, ...words.map((b) => `${a} ${b}`)])
      expect({ ...parseName(name), why: [] }).toEqual({ ...parseName(`${name} `), why: [] });
});

test.each([
  ['CAWS PENLLYN CYF.', 'Caws Penllyn', 'Cyf'],
  ['Brackenfold Dairy 🐄 Ltd', 'Brackenfold Dairy', 'Ltd'],
  ['Sorrel Hill | Farmhouse cheese since 1982', 'Sorrel Hill', ''],
  ['HOLLIN & WRAY CREAMERY LIMITED', 'Hollin & Wray Creamery', 'Limited'],
  ['BNSF', 'BNSF', ''],
  ['larkfell gmbh', 'Larkfell', 'GmbH'],
])('company %s', (input, name, legalForm) => expect(parseCompany(input)).toMatchObject({ name, legalForm }));

test.each([
  ['Prod. Mgr', 'Production Manager', 'manager', 'production'],
  ['HEAD OF QA', 'Head of Quality Assurance', 'head', 'quality'],
  ['Quality Intern', 'Quality Intern', 'assistant', 'quality'],
  ['Technical Director at Edale Dairy', 'Technical Director', 'director', 'technical'],
])('title %s', (input, title, level, team) => expect(parseTitle(input)).toMatchObject({ title, level, team }));

test.each([
  ['Wells BA5, Somerset', 'Wells', 'Somerset', 'GB'],
  ['Westport, Co. Mayo, Ireland', 'Westport', 'Mayo', 'IE'],
  ['Burlington, VT 05401', 'Burlington', 'Vermont', 'US'],
  ['HAWES, N YORKS', 'Hawes', 'North Yorkshire', 'GB'],
])('place %s', (input, city, region, country) => expect(parsePlace(input)).toEqual({ city, region, country }));

// google-libphonenumber 3.2.47 and python3-phonenumbers 8.12.57, where the two agree.
const phones = fixture('phones.csv').filter((row) => row['disagreement'] === '');
const PLANS: Record<string, PhonePlan> = {
  MOBILE: 'mobile',
  FIXED_LINE: 'fixed',
  TOLL_FREE: 'service',
  SHARED_COST: 'service',
  PREMIUM_RATE: 'service',
  UAN: 'service',
};
test.each(phones)('$default_region $input', (row) => {
  const phone = parsePhone(row['input']!, row['default_region']!);
  expect(phone.e164.split(';')[0]).toBe(row['google_valid'] === 'true' ? row['google_e164'] : '');
  if (phone.e164 !== '') expect(phonePlan(phone.e164)).toBe(PLANS[row['google_type']!] ?? 'unclear');
});

test('links, domains and emails have one form', () => {
  expect(canonicalLink('HTTPS://www.Directory.example/p/8841/?trk=a#b')).toBe('directory.example/p/8841');
  expect(canonicalLink('not a link')).toBe('');
  // publicsuffix.org: co.uk is a public suffix.
  expect(registrableDomain('shop.brackenfold.co.uk')).toBe('brackenfold.co.uk');
  expect(['co.uk', '', 'a..b', '.lead.example', '192.0.2.1'].map(registrableDomain)).toEqual(['', '', '', '', '']);
  expect(normaliseEmail('Maren <mailto:M.Oakhill@Brackenfold.example>;')).toBe('m.oakhill@brackenfold.example');
  expect(normaliseEmail('none')).toBe('');
});

test('a row keeps every change with what was, what is and why, and guesses no cut phone', () => {
  const columns = [
    { name: 'Contact', target: 'fullName' as const },
    { name: 'Tel', target: 'phone' as const },
    { name: 'Web', target: 'website' as const },
    { name: 'Visited', target: 'own' as const },
  ];
  const tidy = tidier({ phoneCountry: 'GB', lists: NO_LISTS });
  const { person, changes, issues, extra } = tidy(
    ['MAREN OAKHILL ★', '1.13496E+09', 'www.brackenfold.example', '14/03/2026'],
    columns,
  );
  expect(person).toMatchObject({ firstName: 'Maren', lastName: 'Oakhill', domain: 'brackenfold.example', phone: '' });
  expect(changes).toContainEqual({
    field: 'firstName',
    was: 'MAREN OAKHILL ★',
    is: 'Maren',
    why: ['symbols-removed', 'capitals'],
  });
  expect(issues).toEqual([{ code: 'digits-lost', field: 'phone', input: '1.13496E+09' }]);
  expect(extra).toEqual({ Visited: '14/03/2026' });
  expect(tidy(['', '', '', ''], columns).issues[0]!.code).toBe('nothing-to-identify');
});

// Common practice, no source: addresses of two words with a dot say the name.
test.each([
  ['maren.oakhill@tidewell.example', 'Maren Oakhill'],
  ['oakhill_martin2@tidewell.example', 'Martin Oakhill'],
  ['james.martin+news@tidewell.example', 'James Martin'],
  ['james.macaskill@tidewell.example', 'James MacAskill'],
  ['m.oakhill@tidewell.example', ''],
  ['jamesmartin@tidewell.example', ''],
  ['james.sales@tidewell.example', ''],
  ['north.gate@tidewell.example', ''],
])('%s says %s', (email, name) => {
  const said = nameFromEmail(email);
  expect(said ? `${said.firstName} ${said.lastName}` : '').toBe(name);
});

test('who has an address alone has the name and the domain that it says, and keeps a name that came', () => {
  const read = (cells: string[]) =>
    tidier({ phoneCountry: 'GB', lists: NO_LISTS })(cells, [
      { name: 'Email', target: 'email' },
      { name: 'Name', target: 'fullName' },
    ]);
  const { person, changes } = read(['James.Martin@tidewell.example', '']);
  expect([person.firstName, person.lastName, person.domain]).toEqual(['James', 'Martin', 'tidewell.example']);
  expect(changes.filter(({ why }) => why.includes('name-from-email'))).toHaveLength(2);
  expect(read(['james.martin@tidewell.example', 'Jim Carter']).person.lastName).toBe('Carter');
});
