import { runName, runWords, type Run } from '@sieve/contract';
import { inject } from '@angular/core';
import { Router } from '@angular/router';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { mapResponse } from '@ngrx/operators';
import { debounceTime, defer, EMPTY, exhaustMap, finalize, groupBy, map, merge, mergeMap, switchMap, tap } from 'rxjs';
import { Api, wordsOf } from '../api/api';
import { LIVE } from '../api/live';
import { Notices } from '../ui/notices';
import { workActions } from './work';

const failed = (error: unknown) => workActions.failed({ words: wordsOf(error) });

export const listen = createEffect(
  (live = inject(LIVE)) =>
    live.pipe(
      map((event) => {
        switch (event.type) {
          case 'run':
            return workActions.runMoved({ run: event.run });
          case 'job':
            return workActions.jobChanged({ jobId: event.jobId });
          case 'search':
            return workActions.searchChanged({ searchId: event.searchId });
          case 'lost':
            return workActions.connectionLost();
          case 'back':
            return workActions.connectionBack();
        }
      }),
    ),
  { functional: true },
);

/** All runs. What is told of one while they are asked for is newer than what comes. */
const allRuns = (actions: Actions, api: Api) =>
  defer(() => {
    const told = new Map<number, Run>();
    const listening = actions.pipe(ofType(workActions.runMoved)).subscribe(({ run }) => told.set(run.id, run));
    return api.runs().pipe(
      map((runs) => {
        const known = new Set(runs.map(({ id }) => id));
        return [
          ...runs.map((run) => told.get(run.id) ?? run),
          ...[...told.values()].filter(({ id }) => !known.has(id)),
        ];
      }),
      finalize(() => listening.unsubscribe()),
    );
  });

/** At the start, and whenever the server is back, everything is asked for again. */
export const loadAll = createEffect(
  (actions = inject<Actions>(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(workActions.opened, workActions.connectionBack),
      switchMap(() =>
        merge(
          api.jobs().pipe(mapResponse({ next: (jobs) => workActions.jobsCame({ jobs }), error: failed })),
          allRuns(actions, api).pipe(mapResponse({ next: (runs) => workActions.runsCame({ runs }), error: failed })),
        ),
      ),
    ),
  { functional: true },
);

export const reloadJob = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(workActions.jobChanged),
      groupBy(({ jobId }) => jobId),
      mergeMap((same) =>
        same.pipe(
          debounceTime(60),
          switchMap(({ jobId }) =>
            api.job(jobId).pipe(mapResponse({ next: (job) => workActions.jobCame({ job }), error: failed })),
          ),
        ),
      ),
    ),
  { functional: true },
);

export const actOnRun = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(workActions.runAsked),
      mergeMap(({ id, action }) =>
        api.actOnRun(id, action).pipe(mapResponse({ next: (run) => workActions.runMoved({ run }), error: failed })),
      ),
    ),
  { functional: true },
);

export const createJob = createEffect(
  (actions = inject(Actions), api = inject(Api), router = inject(Router)) =>
    actions.pipe(
      ofType(workActions.jobWanted),
      exhaustMap(({ job, thenBringIn }) =>
        api.createJob(job).pipe(
          mapResponse({
            next: (created) => {
              void router.navigate(thenBringIn ? ['/jobs', created.id, 'bring'] : ['/jobs', created.id]);
              return workActions.jobCame({ job: created });
            },
            error: failed,
          }),
        ),
      ),
    ),
  { functional: true },
);

export const tellFailure = createEffect(
  (actions = inject(Actions), notices = inject(Notices)) =>
    merge(
      actions.pipe(
        ofType(workActions.failed),
        tap(({ words }) => notices.bad(words)),
      ),
      actions.pipe(
        ofType(workActions.runMoved),
        tap(({ run }) => {
          const words = `${run.jobName}: ${runName(run.input)}`;
          if (run.state === 'failed') notices.bad(`${words}. ${runWords(run)}`);
          else if (run.state === 'done' && ['ask', 'pull', 'harvest'].includes(run.input.kind))
            notices.say(`${words} done. ${runWords(run)}`);
        }),
      ),
    ).pipe(switchMap(() => EMPTY)),
  { functional: true, dispatch: false },
);
