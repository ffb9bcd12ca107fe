import { parseSearch } from '@sieve/core/search/parse';
import type { DirectoryRow } from '@sieve/contract';
import { drawn, webHarness } from '../../testing/web-harness';
import { Picks } from './picks';

const row = (id: number, company = `Firm ${id}`): DirectoryRow => ({
  id: `companies-${id}`,
  name: company,
  title: '',
  company,
  place: 'Wells',
  link: '',
  found: { sector: 'Cheese making' },
});

async function open(rows: DirectoryRow[], about = 'companies') {
  const { http } = webHarness();
  const view = await drawn(Picks, { id: '7' });
  http.expectOne('/api/pick-lists/7/picks').flush(rows);
  http.expectOne('/api/pick-lists').flush([{ id: 7, name: 'Good ones', about, createdAt: 0, picks: rows.length }]);
  await view.stable();
  return { ...view, http };
}

it('leads to the people in its companies, 500 names at a time, each company once', async () => {
  const rows = [...Array.from({ length: 1101 }, (_, i) => row(i)), row(2000, 'FIRM 7')];
  const { element } = await open(rows);
  const links = [...element.querySelectorAll<HTMLAnchorElement>('header a[mat-stroked-button]:not([download])')];
  expect(links.map(({ textContent }) => textContent.trim())).toEqual([
    'People in 1–500',
    'People in 501–1000',
    'People in 1001–1101',
  ]);
  const names = links.flatMap(({ href }) => {
    const { conditions } = parseSearch(new URL(href).searchParams.get('q')!).search!;
    return 'terms' in conditions[0]! ? conditions[0].terms.map(({ text }) => text.toLowerCase()) : [];
  });
  expect(new Set(names).size).toBe(1101);
});

it('a short list has one way on, people have none', async () => {
  const { text, element } = await open([row(1), row(2)]);
  expect(text()).toContain('People in them');
  expect(element.querySelector('a[download]')!.getAttribute('href')).toBe('/api/pick-lists/7/file');
});

it('a row is taken off; an empty list says how rows come onto it', async () => {
  const { http, button, stable, text } = await open([row(1)]);
  button('Take Firm 1 off the list').click();
  const asked = http.expectOne((request) => request.method === 'DELETE');
  expect(asked.request.urlWithParams).toContain('companies-1');
  asked.flush({});
  await stable();
  expect(text()).toContain('Mark rows of a search with Space');
  expect(text()).not.toContain('People in');
  expect(text()).not.toContain('Export');
});
