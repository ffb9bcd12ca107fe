import { COMPANY_FIELDS, type Company } from '../model/company';
import { NO_LISTS } from '../model/word-lists';
import { tidier } from '../tidy/tidy-row';
import { companyOf } from './company-of';
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
