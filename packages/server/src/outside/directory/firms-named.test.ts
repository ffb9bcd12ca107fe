import type { Search } from '@sieve/core';
import type { DirectoryRow } from '@sieve/contract';
import { firmsNamed } from './firms-named';
import type { Directory } from './port';

test('companies are looked for by their name without its legal form; what the directory does not show stays empty', async () => {
  const asked: Search[] = [];
  const row = { id: 'companies-1', name: 'Tidewell', title: '', company: 'Tidewell', place: '', link: '' };
  const rows: DirectoryRow[] = [
    { ...row, found: { website: 'tidewell.example', city: 'Wells', country: 'GB' } },
    { ...row, found: { website: null } },
  ];
  const page: Directory['page'] = (search) => {
    asked.push(search);
    return Promise.resolve({ total: 2, pages: 1, rows });
  };
  const question = { kind: 'firm-search' as const, service: 'directory', name: 'TIDEWELL LTD', city: '', country: '' };
  expect(await firmsNamed({ page } as Directory, question, new AbortController().signal)).toEqual({
    firms: [
      { name: 'Tidewell', domain: 'tidewell.example', city: 'Wells', country: 'GB' },
      { name: 'Tidewell', domain: '', city: '', country: '' },
    ],
  });
  expect(asked).toMatchObject([
    { about: 'companies', conditions: [{ field: 'company', terms: [{ text: 'Tidewell', exact: true }] }] },
  ]);
});
