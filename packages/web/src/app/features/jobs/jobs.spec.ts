import { drawn, haveJobs, sampleJob, webHarness } from '../../testing/web-harness';
import { Jobs } from './jobs';

it('jobs stand in their folders, with what they have and what they cost', async () => {
  const { http } = webHarness();
  haveJobs([
    sampleJob({ id: 1, name: 'Breweries', folder: 'Spring' }),
    sampleJob({ id: 2, name: 'Cheese makers' }),
    sampleJob({ id: 3, name: 'Bakeries', folder: 'Spring', summary: null }),
  ]);
  const { element, stable } = await drawn(Jobs);
  http
    .match('/api/settings')
    .forEach((asked) => asked.flush({ version: 0, settings: { currency: 'EUR', finders: [] } }));
  await stable();
  expect([...element.querySelectorAll('h2')].map(({ textContent }) => textContent.trim())).toEqual([
    'No folder',
    'Spring',
  ]);
  const rows = [...element.querySelectorAll('tbody tr')].map((row) =>
    [...row.querySelectorAll('td')].map(({ textContent }) => textContent.trim()),
  );
  expect(rows.map(([name]) => name)).toEqual(['Cheese makers', 'Bakeries', 'Breweries']);
  expect(rows[0]).toEqual(['Cheese makers', 'Larkfell loggers', '2,581', '425', '600', '€4.50', '€90']);
  expect(element.querySelector('a[href="/jobs/3"]')?.textContent).toBe('Bakeries');
});

it('without a job it says what one is', async () => {
  webHarness();
  expect((await drawn(Jobs)).text()).toContain('No job yet. A job takes your lists');
});
