import { parseSearch } from '@sieve/core/search/parse';
import { drawn, webHarness } from '../../testing/web-harness';
import { Searches } from './searches';

const row = (id: number, name: string, more: object = {}) => ({
  id,
  name,
  folder: '',
  jobId: null,
  perCompany: 0,
  search: parseSearch('title: "quality manager"; country: IE').search,
  createdAt: 0,
  batches: 3,
  pulled: 1200,
  standing: null,
  nextAt: null,
  failed: null,
  lastNew: 0,
  ...more,
});

async function open(searches: object[], lists: object[] = []) {
  const { http } = webHarness();
  const screen = await drawn(Searches);
  http.expectOne('/api/searches').flush(searches);
  http.expectOne('/api/pick-lists').flush(lists);
  await screen.stable();
  return screen;
}

it('searches stand in their folders with their conditions, what was pulled and when they are asked again', async () => {
  const { element, text } = await open(
    [
      row(1, 'Leads'),
      row(2, 'Weekly', {
        folder: 'Autumn',
        standing: { kind: 'days', everyDays: 7, left: null },
        nextAt: new Date('2031-03-04T09:30').getTime(),
        lastNew: 12,
      }),
      row(3, 'Then', { standing: { kind: 'after', searchId: 2 } }),
    ],
    [{ id: 7, name: 'Good ones', about: 'companies', createdAt: 0, picks: 41 }],
  );
  expect([...element.querySelectorAll('h2')].map(({ textContent }) => textContent.trim())).toEqual([
    'No folder',
    'Autumn',
    'Pick lists',
  ]);
  expect(text()).toContain('people where title: "quality manager"; country: IE');
  const cells = [...element.querySelectorAll('tbody tr')].map((line) =>
    [...line.querySelectorAll('td')].map(({ textContent }) => textContent.trim()),
  );
  expect(cells[0]!.slice(2)).toEqual(['3', '1,200', '', '']);
  expect(cells[1]![4]).toBe('after another search');
  expect(cells[2]!.slice(4)).toEqual([expect.stringContaining('09:30'), '12']);
  expect(cells[3]).toEqual(['Good ones', 'companies', '41']);
});

it('without a search there is a next step; when they cannot be had the page stands', async () => {
  expect((await open([])).text()).toContain('No search is saved yet');
});

it('a server that does not answer leaves an empty list, not a page that loads for ever', async () => {
  const { http } = webHarness();
  const { stable, text } = await drawn(Searches);
  http.expectOne('/api/searches').flush({ message: 'No.' }, { status: 500, statusText: 'Error' });
  http.expectOne('/api/pick-lists').flush([]);
  await stable();
  expect(text()).not.toContain('Loading');
});
