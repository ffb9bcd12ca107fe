import { computed, inject } from '@angular/core';
import { patchState, signalStore, withComputed, withMethods, withState } from '@ngrx/signals';
import { rxMethod } from '@ngrx/signals/rxjs-interop';
import { catchError, EMPTY, finalize, mergeMap, type Observable, pipe, tap } from 'rxjs';
import { wordsOf } from '../api/api';
import { Notices } from '../ui/notices';

interface Deed {
  request: Observable<unknown>;
  then: (answer: never) => void;
  failed: (words: string) => void;
}

/** What screens tell the server to do. Whatever fails is said, here and nowhere else; it goes on when the screen is left. */
export const Doing = signalStore(
  { providedIn: 'root' },
  withState({ pending: 0 }),
  withComputed(({ pending }) => ({ busy: computed(() => pending() > 0) })),
  withMethods((store, notices = inject(Notices)) => {
    const begin = rxMethod<Deed>(
      pipe(
        mergeMap(({ request, then, failed }) => {
          patchState(store, ({ pending }) => ({ pending: pending + 1 }));
          return request.pipe(
            tap((answer) => then(answer as never)),
            catchError((error: unknown) => {
              failed(wordsOf(error));
              return EMPTY;
            }),
            finalize(() => patchState(store, ({ pending }) => ({ pending: pending - 1 }))),
          );
        }),
      ),
    );
    return {
      run<T>(
        request: Observable<T>,
        then: (answer: T) => void = () => undefined,
        failed: (words: string) => void = (words) => notices.bad(words),
      ): void {
        begin({ request, then, failed });
      },
    };
  }),
);
export type Doing = InstanceType<typeof Doing>;
