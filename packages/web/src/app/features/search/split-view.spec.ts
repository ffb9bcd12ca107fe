import { parseSearch } from '@sieve/core/search/parse';
import { TestBed } from '@angular/core/testing';
import type { Run } from '@sieve/contract';
import { drawn, webHarness } from '../../testing/web-harness';
import { SearchStore } from './search-store';
import { SplitView } from './split-view';

const whole = parseSearch('title: technical').search!;

describe('pulls of batches', () => {
  const run: Run = {
    id: 9,
    jobId: 2,
    jobName: 'Leads',
    kind: 'pull',
    state: 'running',
    done: 25,
    total: 60,
    rate: 0,
    message: '',
    createdAt: 0,
    endedAt: null,
    notBefore: null,
  };
  const saved = (stopped: boolean) => {
    const counts = { page: 2, promised: 60, came: 25, fresh: 25, yours: 0, full: 0 };
    const pull = { id: 3, runId: 9, jobId: 2, startedAt: 0, endedAt: null, stopped, ...counts };
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
    expect(http.expectOne('/api/searches/4/forecast').request.body).toEqual({ batchIds: [1], jobId: 2 });
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
