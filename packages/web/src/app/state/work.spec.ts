import { TestBed } from '@angular/core/testing';
import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { provideRouter } from '@angular/router';
import { provideEffects } from '@ngrx/effects';
import { provideState, provideStore, Store } from '@ngrx/store';
import { Subject } from 'rxjs';
import { LIVE, type LiveEvent } from '../api/live';
import { sampleRun } from '../testing/web-harness';
import { work, workActions } from './work';
import * as effects from './work-effects';

const globalStore = () =>
  TestBed.inject(Store) as unknown as {
    dispatch: (action: object) => void;
    selectSignal: <T>(selector: (state: object) => T) => () => T;
  };

describe('work', () => {
  let live: Subject<LiveEvent>;
  let http: HttpTestingController;
  let store: ReturnType<typeof globalStore>;

  beforeEach(() => {
    live = new Subject();
    TestBed.configureTestingModule({
      providers: [
        provideHttpClient(),
        provideHttpClientTesting(),
        provideRouter([]),
        provideStore(),
        provideState(work),
        provideEffects(effects),
        { provide: LIVE, useValue: live },
      ],
    });
    store = globalStore();
    http = TestBed.inject(HttpTestingController);
  });

  it('follows runs as the server tells of them', () => {
    const running = store.selectSignal(work.selectLiveRuns);
    live.next({ type: 'run', run: sampleRun(1, 'running') });
    live.next({ type: 'run', run: sampleRun(2, 'queued') });
    expect(running().map(({ id }) => id)).toEqual([2, 1]);
    live.next({ type: 'run', run: sampleRun(1, 'done') });
    expect(running().map(({ id }) => id)).toEqual([2]);
  });

  it('what is told of a run while all are asked for is newer than what comes', () => {
    const running = store.selectSignal(work.selectLiveRuns);
    live.next({ type: 'back' });
    http.expectOne('/api/jobs').flush([]);
    const asked = http.expectOne('/api/runs');
    live.next({ type: 'run', run: sampleRun(1, 'done') });
    live.next({ type: 'run', run: sampleRun(3, 'running') });
    asked.flush([sampleRun(1, 'running'), sampleRun(2, 'queued')]);
    expect(running().map(({ id }) => id)).toEqual([3, 2]);
  });

  it('says when the server is gone, and asks for everything when it is back', () => {
    const connected = store.selectSignal(work.selectConnected);
    live.next({ type: 'lost' });
    expect(connected()).toBe(false);
    live.next({ type: 'back' });
    expect(connected()).toBe(true);
    http.expectOne('/api/jobs').flush([]);
    http.expectOne('/api/runs').flush([sampleRun(7, 'paused')]);
    expect(store.selectSignal(work.selectLiveRuns)()).toHaveLength(1);
  });

  it('shows the server’s own words when something fails', () => {
    store.dispatch(workActions.runAsked({ id: 3, action: 'pause' }));
    http
      .expectOne('/api/runs/3')
      .flush(
        { code: 'not-running', message: 'This run is done; that cannot be done to it now.' },
        { status: 409, statusText: 'Conflict' },
      );
    expect(document.body.textContent).toContain('This run is done');
  });
});
