import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import type { Subject } from '@sieve/core';
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

async function withPage(page: object, about: Subject = 'people') {
  const { http } = webHarness([SearchStore]);
  const store = TestBed.inject(SearchStore);
  const rows = await drawn(FoundRows);
  store.clear(about);
  await new Promise((resolve) => setTimeout(resolve, 300));
  http.expectOne('/api/directory/count').flush({ count: 60, cap: 2500 });
  await rows.stable();
  http.expectOne('/api/directory/page').flush(page);
  await rows.stable();
  return { ...rows, http };
}

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

  it('pages on and back, and what was marked stays with its page', async () => {
    const { stable, button, http } = await withPage({ total: 60, pages: 3, rows: [row(1, false)] });
    expect(button('Before').disabled).toBe(true);
    button('Next').click();
    const asked = http.expectOne('/api/directory/page');
    expect((asked.request.body as { page: number }).page).toBe(2);
    asked.flush({ total: 60, pages: 3, rows: [row(30, false)] });
    await stable();
    expect(button('Before').disabled).toBe(false);
  });

  it('leads from companies to the people in them: the marked ones, or all of the page', async () => {
    const { button, element, stable } = await withPage(
      { total: 2, pages: 1, rows: [row(1, false), row(2, false)] },
      'companies',
    );
    const went = jest.spyOn(TestBed.inject(Router), 'navigate').mockResolvedValue(true);
    const query = () => (went.mock.calls.at(-1)![1]!.queryParams as { q: string }).q;
    button('People in them').click();
    expect(query()).toBe('people where company: "Firm 1" or "Firm 2"');
    element.querySelectorAll<HTMLInputElement>('tr.row input')[1]!.click();
    await stable();
    button('People in them').click();
    expect(query()).toBe('people where company: "Firm 2"');
  });

  it('leads from postings to their companies, each once', async () => {
    const { button } = await withPage(
      { total: 2, pages: 1, rows: [row(1, false), { ...row(2, false), company: 'FIRM 1' }] },
      'postings',
    );
    const went = jest.spyOn(TestBed.inject(Router), 'navigate').mockResolvedValue(true);
    button('Their companies').click();
    expect(went.mock.calls[0]![1]!.queryParams).toEqual({ q: 'companies where company: "FIRM 1"' });
  });

  it('more like nothing is not asked for', async () => {
    const { button, http } = await withPage({ total: 1, pages: 1, rows: [row(1, false)] });
    button('More like the marked').click();
    http.expectNone('/api/directory/like');
    expect(document.body.textContent).toContain('Mark one or several good rows first');
  });

  it('a search without results says what could be taken away', async () => {
    expect((await withPage({ total: 0, pages: 0, rows: [] })).text()).toContain('Nothing matches');
  });
});
