import type { HitRate } from '@sieve/contract';
import { drawn, sampleJob, webHarness } from '../../testing/web-harness';
import { HitRates } from './hit-rates';

const rate: HitRate = {
  name: 'Quality in cheese',
  searchId: 4,
  rows: 1200,
  came: 1000,
  fits: 620,
  low: 0.5895,
  high: 0.6496,
  why: { suppressed: 4, 'title-near-brief': 70, 'a-new-code': 306 },
  tighter: [{ field: 'title', text: 'assistant', misfits: 210, fits: 3, q: 'people where not title: assistant' }],
  toGo: { low: 90, likely: 100, high: 120 },
  asked: 300,
  valid: 40,
  spentCents: 600,
  eachCents: { low: 12, likely: 15, high: 20 },
  doneAt: Date.parse('2026-12-02T12:00:00'),
};

it('says how much fits, why not the rest, what to leave out, and how many rows are to go', async () => {
  const { http } = webHarness();
  const { stable, text, element } = await drawn(HitRates, { job: sampleJob() });
  http
    .expectOne('/api/jobs/2/hit-rates')
    .flush([
      rate,
      { ...rate, name: 'list.csv', searchId: null, doneAt: null, eachCents: { low: 9, likely: 10, high: 12 } },
    ]);
  await stable();
  expect(text()).toContain('62 % fit 59 to 65 % by chance');
  const why = [...element.querySelectorAll('section')[0]!.querySelectorAll('li')];
  expect(why.map((li) => li.textContent.replace(/\s+/g, ' ').trim())).toEqual([
    '−306 a-new-code',
    '−70 Title near the brief’s: wants a look',
    '−4 Suppression list',
  ]);
  expect(text()).toContain('about 210 that do not fit stay away, and 3 that fit');
  expect(element.querySelector('a')!.getAttribute('href')).toBe('/search?q=people%20where%20not%20title:%20assistant');
  expect(text()).toContain('About 100 more rows like these');
  expect(text()).toContain('At the pace that is set they are here and looked up by Wednesday 2 December.');
  expect(text()).toMatch(/40 valid emails for £6\s*: £15 for a hundred \(£12 to £20 by chance\)/);
  const sections = [...element.querySelectorAll('section')].map((section) => section.textContent);
  expect(sections.map((words) => words.includes('The cheapest source'))).toEqual([false, true]);
});
