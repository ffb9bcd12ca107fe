import { Clipboard } from '@angular/cdk/clipboard';
import { parseSearch } from '@sieve/core/search/parse';
import { printSearch } from '@sieve/core/search/print';
import { TestBed } from '@angular/core/testing';
import type { Run } from '@sieve/contract';
import { drawn, webHarness } from '../../testing/web-harness';
import { readSheet } from './batch-sheet';
import { SearchStore } from './search-store';
import { SplitView } from './split-view';

const whole = parseSearch('title: technical').search!;

describe('pulls of batches', () => {
  const run: Run = {
    id: 9,
    jobId: 2,
    jobName: 'Leads',
    input: { kind: 'pull', pullId: 1, searchId: 1 },
    state: 'running',
    done: 25,
    total: 60,
    rate: 0,
    phase: null,
    result: null,
    createdAt: 0,
    endedAt: null,
    notBefore: null,
    seenAt: null,
  };
  const saved = (stopped: boolean) => {
    const counts = { page: 2, promised: 60, came: 25, fresh: 25, yours: 0, full: 0 };
    const pull = { id: 3, runId: 9, jobId: 2, startedAt: 0, endedAt: null, stopped, takenBack: false, ...counts };
    return {
      id: 4,
      name: 'Leads',
      jobId: 2,
      search: whole,
      batches: 1,
      split: { top: { by: null, count: 60, batch: 0, parts: [] }, count: 60, fewest: 1, outOfReach: 0, questions: 1 },
      batchViews: [{ id: 1, position: 0, search: whole, extra: [], kept: {}, count: 60, pull }],
      pulls: [{ ...pull, batch: 0, standing: false }],
    };
  };
  const open = async (stopped: boolean) => {
    const { http, live } = webHarness([SearchStore]);
    TestBed.inject(SearchStore).load(4);
    http.expectOne('/api/searches/4').flush(saved(stopped));
    return { http, live, ...(await drawn(SplitView)) };
  };

  it('one that goes on is not offered again', async () => {
    const { http, live, text, stable } = await open(false);
    live.next({ type: 'run', run });
    await stable();
    expect(text()).toContain('Pulling');
    expect(text()).not.toContain('Pull the batch');
    http.expectNone('/api/searches/4/forecast');
  });

  it('one that was stopped for good is, and its time is asked for once, whatever news come', async () => {
    const { http, live, text, stable } = await open(true);
    for (const done of [1, 2, 3]) {
      live.next({ type: 'run', run: { ...run, state: 'cancelled', done } });
      await stable();
    }
    expect(text()).toContain('Stopped');
    expect(text()).toContain('Pull the batch');
    expect(http.expectOne('/api/searches/4/forecast').request.body).toEqual({ batchIds: [1], jobId: 2, first: 0 });
  });

  it('takes at most so many of a company, all without a number', async () => {
    const { http, element, stable } = await open(true);
    const most = element.querySelector<HTMLInputElement>('[aria-label^="Rows of one company"]')!;
    const sent = async (value: string) => {
      most.value = value;
      most.dispatchEvent(new Event('change'));
      await stable();
      const asked = http.expectOne({ method: 'PATCH', url: '/api/searches/4' });
      asked.flush(saved(true));
      return asked.request.body as object;
    };
    expect(await sent('3')).toEqual({ perCompany: 3 });
    expect(await sent('99999')).toEqual({ perCompany: 1000 });
    expect(await sent('')).toEqual({ perCompany: 0 });
  });
});

describe('a split', () => {
  const part = (text: string) => parseSearch(`title: technical; ${text}`).search!;
  const batch = (position: number, text: string, count: number, kept: Record<string, string> = {}) => ({
    id: position + 1,
    position,
    search: part(text),
    extra: part(text).conditions.slice(1),
    kept,
    count,
    pull: null,
  });
  const view = (change: object = {}) => ({
    id: 4,
    name: 'Leads',
    jobId: null,
    perCompany: 0,
    search: whole,
    batches: 2,
    batchViews: [batch(0, 'team: quality', 2400), batch(1, 'not team: quality', 3100)],
    pulls: [],
    split: {
      top: { by: null, count: 5500, batch: null, parts: [] },
      count: 5500,
      fewest: 3,
      outOfReach: 600,
      questions: 7,
      missing: 0,
      twice: 0,
      ...change,
    },
  });
  const open = async (change: object = {}) => {
    const { http } = webHarness([SearchStore]);
    TestBed.inject(SearchStore).load(4);
    http.expectOne('/api/searches/4').flush(view(change));
    return { http, ...(await drawn(SplitView)) };
  };

  it('says what it covers, what nothing can separate, and how much was asked', async () => {
    const { text, element } = await open();
    for (const words of ['2 batches cover all 5,500', 'None overlap', '600 are out of reach', '7 questions asked'])
      expect(text()).toContain(words);
    expect(element.querySelectorAll('.size.over')).toHaveLength(1);
    expect([...element.querySelectorAll('.what b')].map(({ textContent }) => textContent)).toEqual([
      'Team: quality',
      'Team: not quality',
    ]);
  });

  it('made by hand, it says what is missing and what is there twice', async () => {
    const { text } = await open({ byHand: true, missing: 40, twice: 12, outOfReach: 0 });
    expect(text()).toContain('cover all but 40 of 5,500');
    expect(text()).toContain('12 are in two of them');
  });

  it('is copied as rows that can be pasted back', async () => {
    const { button } = await open();
    const copied = jest.spyOn(TestBed.inject(Clipboard), 'copy').mockReturnValue(true);
    button(/Copy as rows/).click();
    const { searchColumn, rows } = readSheet(copied.mock.calls[0]![0]);
    expect([searchColumn, rows.length]).toEqual([1, 2]);
    expect(rows[1]!.cells).toEqual(['Team: not quality', printSearch(part('not team: quality')), '3100']);
  });

  it('nothing is pulled without a job to go to', async () => {
    const { button, http, text } = await open();
    expect(button(/Pull 2 batches/).disabled).toBe(true);
    expect(text()).not.toContain('a second');
    http.expectNone('/api/searches/4/forecast');
  });

  it('by hand starts from the batches there are, and Back leaves them', async () => {
    const { button, element, stable } = await open();
    button(/Split by hand/).click();
    await stable();
    expect(element.querySelector('textarea')!.value.split('\n')).toEqual([
      printSearch(part('team: quality')),
      printSearch(part('not team: quality')),
    ]);
    button('Back').click();
    await stable();
    expect(element.querySelector('textarea')).toBeNull();
  });
});
