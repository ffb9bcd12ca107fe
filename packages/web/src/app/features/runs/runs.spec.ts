import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { workActions } from '../../state/work';
import { drawn, sampleRun, webHarness } from '../../testing/web-harness';
import { Runs } from './runs';

it('shows what runs, what comes in its order, why something failed, and tries it again; looked at, it is seen', async () => {
  const { http } = webHarness();
  TestBed.inject(Store).dispatch(
    workActions.runsCame({
      runs: [
        sampleRun(5, 'queued', { input: { kind: 'pull', pullId: 1, searchId: 1 } }),
        sampleRun(4, 'queued', { input: { kind: 'export', exportId: 1 } }),
        sampleRun(3, 'running'),
        sampleRun(2, 'failed', { result: { code: 'failed', error: 'disk-full', details: {} } }),
        sampleRun(1, 'done', {
          input: { kind: 'bring-in', sourceId: 1, rows: 7 },
          result: { code: 'rows-read', rows: 7 },
        }),
      ],
    }),
  );
  const { text, button } = await drawn(Runs);
  expect(text()).toMatch(
    /Running\s*Append email.*To come 2\s*Export.*Pull.*The disk is full.*Bring in\s*Cheese makers.*7 rows read/,
  );
  http.expectOne({ method: 'POST', url: '/api/runs/seen' });
  button('Try again').click();
  expect(http.expectOne({ method: 'POST', url: '/api/runs/2' }).request.body).toEqual({ action: 'resume' });
});
