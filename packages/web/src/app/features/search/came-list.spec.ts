import { TestBed } from '@angular/core/testing';
import { parseSearch } from '@sieve/core/search/parse';
import type { SearchView, Standing } from '@sieve/contract';
import { drawn, webHarness } from '../../testing/web-harness';
import { CameList } from './came-list';
import { SearchStore } from './search-store';

const saved = (standing: Standing | null, more: Partial<SearchView> = {}) => ({
  id: 4,
  name: 'Leads',
  jobId: 2,
  perCompany: 0,
  search: parseSearch('title: technical').search,
  batches: 1,
  batchViews: [],
  pulls: [],
  standing,
  nextAt: null,
  failed: null,
  ...more,
});

async function open(standing: Standing | null, more: Partial<SearchView> = {}) {
  const { http } = webHarness([SearchStore]);
  TestBed.inject(SearchStore).load(4);
  http.expectOne('/api/searches/4').flush(saved(standing, more));
  const view = await drawn(CameList);
  const field = <T extends HTMLElement>(name: string) => view.element.querySelector<T>(`[aria-label^="${name}"]`)!;
  const set = async (input: HTMLInputElement, value: string) => {
    input.value = value;
    input.dispatchEvent(new Event('change'));
    await view.stable();
  };
  const sent = async (standingNow: Standing | null) => {
    const asked = http.expectOne({ method: 'PATCH', url: '/api/searches/4' });
    asked.flush(saved(standingNow));
    await view.stable();
    return (asked.request.body as { standing: Standing | null }).standing;
  };
  return { ...view, http, field, set, sent };
}

it('stands every so many days, so many times, within bounds', async () => {
  const { pick, field, set, sent } = await open(null);
  await pick('Ask again', 'every');
  const weekly: Standing = { kind: 'days', everyDays: 7, left: null };
  expect(await sent(weekly)).toEqual(weekly);
  await set(field<HTMLInputElement>('Days between'), '900');
  expect(await sent({ ...weekly, everyDays: 365 })).toEqual({ ...weekly, everyDays: 365 });
  await set(field<HTMLInputElement>('Times'), '3');
  expect(await sent(null)).toEqual({ kind: 'days', everyDays: 365, left: 3 });
});

it('once waits for its time before anything is sent', async () => {
  const { element, http, pick, set, sent } = await open(null);
  await pick('Ask again', 'once');
  http.expectNone('/api/searches/4');
  await set(element.querySelector<HTMLInputElement>('input[type=datetime-local]')!, '2026-12-01T09:30');
  expect(await sent(null)).toEqual({ kind: 'once', at: new Date('2026-12-01T09:30').getTime() });
});

it('after another search offers the others and says which one it waits for', async () => {
  const { http, pick, sent, stable, text } = await open(null);
  await pick('Ask again', 'after another search');
  http.expectOne('/api/searches').flush([
    { id: 4, name: 'Leads' },
    { id: 9, name: 'Companies' },
  ]);
  await stable();
  expect(await pick('After which search', 'Companies')).toEqual(['Companies']);
  expect(await sent({ kind: 'after', searchId: 9 })).toEqual({ kind: 'after', searchId: 9 });
  expect(text()).toContain('each time that Companies was pulled');
});

it('is switched off, and needs a job', async () => {
  const { pick, sent } = await open({ kind: 'days', everyDays: 7, left: null });
  await pick('Ask again', 'never');
  expect(await sent(null)).toBeNull();
  TestBed.resetTestingModule();
  const homeless = await open(null, { jobId: null });
  expect(homeless.text()).toContain('Choose the job that the rows go to');
  expect(homeless.element.querySelector('mat-select')!.getAttribute('aria-disabled')).toBe('true');
});

it('shows what came when, with what was left out', async () => {
  const pull = {
    id: 1,
    runId: 1,
    jobId: 2,
    startedAt: 0,
    endedAt: 1,
    stopped: false,
    takenBack: false,
    first: 0,
    page: 3,
    batch: 1,
  };
  const { element, button, http } = await open(null, {
    pulls: [{ ...pull, standing: true, promised: 60, came: 58, fresh: 40, yours: 7, full: 5 }],
  });
  expect([...element.querySelectorAll('td')].map(({ textContent }) => textContent.trim()).slice(1)).toEqual([
    '2',
    '60',
    '58',
    '40',
    '7',
    '5',
  ]);
  button('Ask now').click();
  http.expectOne('/api/searches/4/ask-now').flush({ runIds: [3] });
  http.expectOne('/api/searches/4').flush(saved(null));
});
