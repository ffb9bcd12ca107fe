import { COMPANY_FIELDS, type Company } from '../model/company';
import { NO_LISTS } from '../model/word-lists';
import { tidier } from '../tidy/tidy-row';
import { companyOf } from './company-of';
import { groupCompanies } from './group-companies';
import { groupName } from './group-name';
import { companyPairs } from './match-names';
import { nameWords } from './name-words';
import { matchCompanies } from './match-companies';

const company = (values: Partial<Company>) =>
  ({ ...Object.fromEntries(COMPANY_FIELDS.map((field) => [field, ''])), ...values }) as Company;
const row = (recordId: number, values: Partial<Company>) => ({ recordId, company: company(values), extra: {} });

test('a record about a company is tidied as its company', () => {
  const columns = [
    { name: 'Company', target: 'company' as const },
    { name: 'Website', target: 'website' as const },
    { name: 'Link', target: 'profile' as const },
    { name: 'Sector', target: 'sector' as const },
  ];
  const cells = ['BRACKENFOLD DAIRY LTD', 'https://www.brackenfold.example/', 'www.directory.example/c/7/', 'Cheese'];
  const { person } = tidier({ phoneCountry: 'GB', lists: NO_LISTS })(cells, columns);
  expect(companyOf(person)).toMatchObject({
    name: 'Brackenfold Dairy',
    legalForm: 'Ltd',
    domain: 'brackenfold.example',
    link: 'directory.example/c/7',
    sector: 'Cheese',
  });
});

test('one domain is one company; without a domain name and country say so', () => {
  const found = matchCompanies([
    row(1, { name: 'Brackenfold', country: 'GB' }),
    row(2, { name: 'Brackenfold', country: 'GB', domain: 'brackenfold.example' }),
    row(3, { name: 'Bracken Fold', domain: 'brackenfold.example', link: 'directory.example/c/7' }),
    row(4, { name: 'Brackenfold', country: 'GB', domain: 'other.example' }),
    row(5, { name: 'Brackenfold', country: 'IE' }),
  ]);
  expect(found.map(({ recordIds }) => recordIds)).toEqual([[1, 2, 3], [4], [5]]);
  expect(found[0]!.company).toMatchObject({ domain: 'brackenfold.example', link: 'directory.example/c/7' });
});

const named = (name: string, more: { domain?: string; city?: string; country?: string } = {}) => ({
  name,
  domain: '',
  city: '',
  country: '',
  link: '',
  ...more,
});

test('names are taken apart: legal forms at either end, what binds, spellings of one word', () => {
  const words = (name: string) => nameWords(name).words.join(' ');
  expect(words('The Brackenfold Manufacturing Co., Ltd.')).toBe('brackenfold mfg');
  expect(words('OOO Brackenfold Mfg')).toBe('brackenfold mfg');
  expect(words('I.B.F. & Söhne GmbH & Co. KG')).toBe('ibf sohne');
  expect(words('Ltd')).toBe('ltd');
  expect(nameWords('Bracken-fold Dairy').run).toBe(nameWords('BRACKENFOLDDAIRY LTD').run);
});

test('companies are one by likely names; figures, rare words and places tell them apart, a person has the last word', () => {
  const chance = (a: ReturnType<typeof named>, b: ReturnType<typeof named>) => companyPairs([a, b])[0]?.chance ?? 0;
  expect(chance(named('Brackenfold Technologies Ltd'), named('BRACKENFOLD TECH.'))).toBeGreaterThan(0.9);
  expect(chance(named('Brackenfold Systems'), named('Brakenfold Systems'))).toBeGreaterThan(0.75);
  expect(chance(named('Tidewell 2'), named('Tidewell 3'))).toBeLessThan(0.75);
  expect(chance(named('Tidewell Dairy'), named('Sorrel Dairy'))).toBeLessThan(0.3);
  const [wells, cork] = [named('Tidewell', { country: 'GB' }), named('Tidewell', { country: 'IE' })];
  expect(chance(wells, cork)).toBeLessThan(0.75);

  const list = [
    named('Brackenfold Dairy', { domain: 'brackenfold.example' }),
    named('Brackenfold Dairy Ltd'),
    named('Brackenfold Dairy', { domain: 'other.example' }),
    named('Hollin & Wray'),
    named('H. Wray'),
    named('Wells Packaging', { domain: 'brackenfold.example' }),
  ];
  const groups = (said?: Parameters<typeof groupCompanies>[1]) => [...groupCompanies(list, said)];
  // One domain is one company; two domains are two, however they are called.
  expect(groups()).toEqual([0, 0, 2, 3, 4, 0]);
  expect([...groupCompanies([list[0]!, list[2]!])]).toEqual([0, 1]);
  expect(groups({ same: [[3, 4]], different: [[0, 1]] })).toEqual([0, 1, 1, 3, 3, 0]);
});

test('a group and its sites have the name in common, without places and what tells sites apart', () => {
  const places = new Set(['cork', 'bala']);
  for (const name of [
    'Brackenfold Group plc',
    'Brackenfold Cork Plant Ltd',
    'BRACKENFOLD (BALA) LTD',
    'Brackenfold Holdings',
  ])
    expect(groupName(name, places)).toBe('brackenfold');
  expect(groupName('Brackenfold Dairy', places)).toBe('brackenfold dairy');
  expect(groupName('Cork Plant', places)).toBe('');
});
