import { TestBed } from '@angular/core/testing';
import { parseSearch } from '@sieve/core/search/parse';
import type { SampleView } from '@sieve/contract';
import { drawn, webHarness } from '../../testing/web-harness';
import { SamplePane } from './sample-pane';
import { SearchStore } from './search-store';

const row = (id: number, fits: boolean): SampleView['rows'][number] => ({
  row: {
    id: `people-${id}`,
    name: `Maren ${id}`,
    title: fits ? 'Quality Manager' : 'Manager of Air Quality Claims',
    company: 'Tidewell',
    place: '',
    link: '',
    found: {},
  },
  fits,
  why: fits ? [] : ['title has the words apart'],
});
const sample: SampleView = {
  total: 6214,
  rows: [row(1, true), row(2, false), row(3, false)],
  fit: 1,
  promised: { low: 380, likely: 2071, high: 4920 },
  loose: [{ text: 'quality manager', condition: 0, term: 0, misfits: 2, quotedCount: 1940 }],
  reach: 6214,
};

async function open(given: SampleView | null) {
  const { http } = webHarness([SearchStore]);
  const store = TestBed.inject(SearchStore);
  store.set(parseSearch('title: quality manager').search!);
  const pane = await drawn(SamplePane);
  if (given) {
    store.askSample(null);
    http.expectOne('/api/directory/sample').flush(given);
    await pane.stable();
  }
  return { ...pane, http, store };
}

it('says how many fit and what the whole result promises, and why the others do not', async () => {
  const { text, element } = await open(sample);
  expect(text()).toContain('3 drawn at random. 1 fit: expect 2,071, between 380 and 4,920.');
  expect(element.querySelectorAll('li.no')).toHaveLength(2);
  expect(element.querySelector('.why')!.textContent).toBe('title has the words apart');
});

it('names the words that let the misfits in, and puts them in quotation marks', async () => {
  const { text, button, store, stable } = await open(sample);
  expect(text()).toContain(
    '“quality manager” has no quotation marks and lets in 2 of the 2 misfits. With them, 1,940 would match.',
  );
  button('Put it in quotation marks').click();
  await stable();
  expect(store.text()).toBe('people where title: "quality manager"');
  expect(text()).not.toContain('drawn at random. 1 fit');
});

it('nothing is drawn from nothing, nor before it was counted', async () => {
  expect((await open(null)).button('Draw a sample').disabled).toBe(true);
  TestBed.resetTestingModule();
  expect((await open({ ...sample, rows: [], fit: 0 })).text()).toContain('Nothing matches, so nothing can be drawn.');
});
