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
  lastNew: 0,
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

  it('reads what is typed beside a field and joins it to what is there', () => {
    expect(store.add('title', '"quality manager", technical')).toBe(true);
    expect(store.add('title', 'Technical')).toBe(true);
    expect(store.add('title', 'not assistant')).toBe(true);
    expect(store.add('years', '1..10')).toBe(true);
    expect(store.add('years', 'ten')).toBe(false);
    expect(store.add('team', 'cheese')).toBe(false);
    expect(store.text()).toBe('people where title: "quality manager" or technical; not title: assistant; years: 1..10');
  });

  it('turns, quotes and removes single values', () => {
    store.set(read('title: a b or c; years: 1..2 or 5..'));
    store.quote(0, 0);
    expect(store.text()).toBe('people where title: "a b" or c; years: 1..2 or 5..');
    store.turn(0, 1);
    expect(store.text()).toBe('people where title: "a b"; not title: c; years: 1..2 or 5..');
    store.remove(1, 0);
    store.remove(0, 0);
    expect(store.text()).toBe('people where not title: c; years: 5..');
  });

  it('asks for the count once things have settled, and only for the last search', () => {
    store.add('title', 'a');
    store.add('title', 'b');
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
    store.add('years', '1..10');
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
    store.add('title', 'a');
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
    store.add('title', 'technical');
    store.save(then);
    const created = http.expectOne('/api/searches');
    expect(created.request.body).toMatchObject({ name: 'People · technical' });
    created.flush(saved());
    store.save(then);
    expect(then).toHaveBeenCalledTimes(2);
    store.add('country', 'GB');
    expect(store.changed()).toBe(true);
    store.save(then);
    http.expectOne('/api/searches/4').flush(saved({ search: store.search() }));
    expect(store.changed()).toBe(false);
    expect(then).toHaveBeenCalledTimes(3);
  });

  it('saves before it splits', () => {
    const then = jest.fn();
    store.add('title', 'technical');
    store.split(then);
    expect(store.splitting()).toBe(true);
    http.expectOne('/api/searches').flush(saved());
    http.expectOne('/api/searches/4/split').flush(saved({ batches: 3 }));
    expect([store.splitting(), store.saved()!.batches, then.mock.calls.length]).toEqual([false, 3, 1]);
  });
});
