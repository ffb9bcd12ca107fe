import { TestBed } from '@angular/core/testing';
import type { Run } from '@sieve/contract';
import { Store } from '@ngrx/store';
import { workActions } from '../../state/work';
import { drawn, webHarness } from '../../testing/web-harness';
import { Runs } from './runs';

const run = (id: number, state: Run['state'], more: Partial<Run> = {}): Run => ({
  id,
  jobId: 2,
  jobName: 'Cheese makers',
  input: { kind: 'ask', step: 'verify' },
  state,
  done: 0,
  total: 10,
  rate: 0,
  phase: null,
  result: null,
  createdAt: 0,
  endedAt: state === 'failed' || state === 'done' ? 1 : null,
  notBefore: null,
  seenAt: null,
  ...more,
});

it('shows what runs, what comes in its order, why something failed, and tries it again; looked at, it is seen', async () => {
  const { http } = webHarness();
  TestBed.inject(Store).dispatch(
    workActions.runsCame({
      runs: [
        run(5, 'queued', { input: { kind: 'pull', pullId: 1, searchId: 1 } }),
        run(4, 'queued', { input: { kind: 'export', exportId: 1 } }),
        run(3, 'running'),
        run(2, 'failed', { result: { code: 'failed', error: 'disk-full', details: {} } }),
        run(1, 'done', { input: { kind: 'bring-in', sourceId: 1, rows: 7 }, result: { code: 'rows-read', rows: 7 } }),
      ],
    }),
  );
  const { text, button } = await drawn(Runs);
  expect(text()).toMatch(
    /Running\s*Verify.*To come 2\s*Export.*Pull.*The disk is full.*Bring in\s*Cheese makers.*7 rows read/,
  );
  http.expectOne({ method: 'POST', url: '/api/runs/seen' });
  button('Try again').click();
  expect(http.expectOne({ method: 'POST', url: '/api/runs/2' }).request.body).toEqual({ action: 'resume' });
});
