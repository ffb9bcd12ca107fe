import type { HttpTestingController } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { parseSearch } from '@sieve/core/search/parse';
import type { SearchView } from '@sieve/contract';
import { webHarness } from '../../testing/web-harness';
import { SearchStore } from './search-store';

const read = (text: string) => parseSearch(text).search!;
const saved = (more: Partial<SearchView> = {}): SearchView => ({
  id: 4,
  version: 0,
  name: 'Leads',
  folder: '',
  jobId: null,
  perCompany: 0,
  search: read('title: technical'),
  createdAt: 0,
  batches: 0,
  pulled: 0,
  standing: null,
  nextAt: null,
  failed: null,
  lastNew: 0,
  splitting: null,
  split: null,
  batchViews: [],
  pulls: [],
  ...more,
});

describe('search store', () => {
  let store: InstanceType<typeof SearchStore>;
  let http: HttpTestingController;

  beforeEach(() => {
    jest.useFakeTimers();
    http = webHarness([SearchStore]).http;
    store = TestBed.inject(SearchStore);
  });
  afterEach(() => jest.useRealTimers());

  it('a change that cannot be read is said in words and changes nothing', () => {
    expect(store.change({ kind: 'type', text: 'title: "quality manager", technical; years: 1..10' })).toBe('');
    expect(store.change({ kind: 'add', condition: 1, text: 'ten' })).toContain('no whole number');
    expect(store.change({ kind: 'type', text: 'headcount: many' })).toContain('One of: 1-4, 5-10');
    expect(store.text()).toBe('people where title: "quality manager" or technical; years: 1..10');
  });

  it('says of each clause what it takes away of what those before it leave, each beginning asked once', () => {
    const answer = (counts: number[]) =>
      counts.map((count) => {
        const asked = http.expectOne('/api/directory/count');
        asked.flush({ count, cap: 2500 });
        return (asked.request.body as { search: { conditions: object[] } }).search.conditions.length;
      });
    store.change({ kind: 'type', text: 'title: technical; country: GB' });
    expect(store.clauses().map(({ takes }) => takes)).toEqual([null, null]);
    jest.advanceTimersByTime(300);
    expect(answer([300, 40_000, 5000])).toEqual([2, 0, 1]);
    expect(store.clauses().map(({ words, takes }) => [words, takes])).toEqual([
      ['whose title says', 35_000],
      ['in', 4700],
    ]);
    store.change({ kind: 'type', text: 'not title: sales' });
    jest.advanceTimersByTime(300);
    expect(answer([280, 4000])).toEqual([3, 2]);
    expect(store.clauses().map(({ words, takes }) => [words, takes])).toEqual([
      ['whose title says', 35_000],
      ['but not', 1000],
      ['in', 3720],
    ]);
  });

  it('asks for the count once things have settled, and only for the last search', () => {
    store.change({ kind: 'type', text: 'title: a' });
    store.change({ kind: 'type', text: 'title: b' });
    expect(store.counting()).toBe(true);
    http.expectNone('/api/directory/count');
    jest.advanceTimersByTime(300);
    const asked = http.expectOne('/api/directory/count');
    expect(asked.request.body).toEqual({ search: read('title: a or b') });
    asked.flush({ count: 6214, cap: 2500 });
    expect([store.count(), store.cap(), store.counting()]).toEqual([6214, 2500, false]);
  });

  it('saves once, however often it is pressed; a new name leaves conditions that are not saved, and the batches, alone', () => {
    store.set(read('title: technical'));
    store.save(() => undefined);
    store.save(() => undefined);
    // What is said while it is being saved is not lost.
    store.patch({ perCompany: 2 });
    http.expectOne({ method: 'POST', url: '/api/searches' }).flush(saved({ batches: 3 }));
    const said = http.expectOne({ method: 'PATCH', url: '/api/searches/4' });
    expect(said.request.body).toEqual({ perCompany: 2 });
    said.flush(saved({ batches: 3, perCompany: 2 }));
    store.change({ kind: 'type', text: 'years: 1..10' });
    store.patch({ name: 'Leads, new' });
    const renamed = http.expectOne({ method: 'PATCH', url: '/api/searches/4' });
    expect(renamed.request.body).toEqual({ name: 'Leads, new' });
    renamed.flush(saved({ name: 'Leads, new', batches: 3 }));
    expect([store.changed(), store.saved()!.batches]).toEqual([true, 3]);
    store.save(() => undefined);
    http.expectOne({ method: 'PATCH', url: '/api/searches/4' }).flush(saved({ search: store.search() }));
    expect(document.body.textContent).toContain('The 3 batches of the conditions before went with them');
  });

  it('keeps the words of a directory that cannot be asked, and asks again', () => {
    store.change({ kind: 'type', text: 'title: a' });
    jest.advanceTimersByTime(300);
    http
      .expectOne('/api/directory/count')
      .flush({ message: 'Waymark: it answered 500.' }, { status: 502, statusText: 'Bad Gateway' });
    expect(store.problem()).toBe('Waymark: it answered 500.');
    store.retry();
    jest.advanceTimersByTime(300);
    http.expectOne('/api/directory/count').flush({ count: 1, cap: 2500 });
    expect([store.problem(), store.count()]).toEqual(['', 1]);
  });

  it('gives an unsaved search a name from its conditions, and saves changed ones only', () => {
    const then = jest.fn();
    store.change({ kind: 'type', text: 'title: technical' });
    store.save(then);
    const created = http.expectOne('/api/searches');
    expect(created.request.body).toMatchObject({ name: 'People · technical' });
    created.flush(saved());
    store.save(then);
    expect(then).toHaveBeenCalledTimes(2);
    store.change({ kind: 'type', text: 'country: GB' });
    expect(store.changed()).toBe(true);
    store.save(then);
    http.expectOne('/api/searches/4').flush(saved({ search: store.search() }));
    expect(store.changed()).toBe(false);
    expect(then).toHaveBeenCalledTimes(3);
  });

  it('saves before it splits', () => {
    const then = jest.fn();
    store.change({ kind: 'type', text: 'title: technical' });
    store.split(then);
    expect(store.splitting()).toBe(true);
    http.expectOne('/api/searches').flush(saved());
    http.expectOne('/api/searches/4/split').flush(saved({ batches: 3 }));
    expect([store.splitting(), store.saved()!.batches, then.mock.calls.length]).toEqual([false, 3, 1]);
  });
});
