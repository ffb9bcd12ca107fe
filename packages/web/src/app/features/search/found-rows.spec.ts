import { TestBed } from '@angular/core/testing';
import type { DirectoryRow } from '@sieve/contract';
import { drawn, webHarness } from '../../testing/web-harness';
import { FoundRows } from './found-rows';
import { SearchStore } from './search-store';

const row = (id: number, held: boolean): DirectoryRow & { held: boolean } => ({
  id: `people-${id}`,
  name: `Maren ${id}`,
  title: 'Owner',
  company: `Firm ${id}`,
  place: 'Wells',
  link: '',
  found: {},
  held,
});
const press = (key: string) => document.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));

describe('rows of a search', () => {
  it('are marked with the keyboard, by page, or only what is new', async () => {
    const { http } = webHarness([SearchStore]);
    const store = TestBed.inject(SearchStore);
    Element.prototype.scrollIntoView = jest.fn();
    const { element, stable, text } = await drawn(FoundRows);
    store.clear('people');
    await new Promise((resolve) => setTimeout(resolve, 300));
    http.expectOne('/api/directory/count').flush({ count: 3, cap: 2500 });
    await stable();
    http
      .expectOne('/api/directory/page')
      .flush({ total: 3, pages: 1, rows: [row(1, false), row(2, true), row(3, false)] });
    await stable();
    expect(element.querySelectorAll('tr.row')).toHaveLength(3);
    expect(text()).toContain('yours');
    for (const key of [' ', 'j', 'j', ' ', 'k']) press(key);
    await stable();
    expect(text()).toContain('2 marked');
    expect([...element.querySelectorAll('tr.row')].map((line) => line.className)).toEqual([
      'row marked',
      'row on',
      'row marked',
    ]);
    element.querySelectorAll<HTMLInputElement>('tr.row input')[0]!.click();
    await stable();
    expect(text()).toContain('1 marked');
  });
});
