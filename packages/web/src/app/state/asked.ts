import { inject } from '@angular/core';
import { patchState, signalStoreFeature, withMethods, withState } from '@ngrx/signals';
import { rxMethod } from '@ngrx/signals/rxjs-interop';
import { catchError, EMPTY, type Observable, pipe, switchMap, tap } from 'rxjs';
import { Api, wordsOf } from '../api/api';

/** Something asked of the server, as a screen's store holds it. */
export type Request<T> =
  { status: 'idle' } | { status: 'asking' } | { status: 'done'; value: T } | { status: 'failed'; words: string };

/** What came, null while there is nothing. */
export const valueOf = <T>(request: Request<T>): T | null => (request.status === 'done' ? request.value : null);

/**
 * A part of a screen's store: one thing asked of the server. `load` takes what it is asked by, once or as a signal; the answer to
 * an earlier question never comes after that to a later one, and what is there stays until the next answer comes.
 */
export function withAsked<I, T>(ask: (api: Api, input: I) => Observable<T>) {
  return signalStoreFeature(
    withState<{ asked: Request<T> }>({ asked: { status: 'idle' } }),
    withMethods((store, api = inject(Api)) => {
      const set = (asked: Request<T>) => patchState(store, { asked });
      return {
        load: rxMethod<I>(
          pipe(
            switchMap((input) => {
              if (store.asked().status !== 'done') set({ status: 'asking' });
              return ask(api, input).pipe(
                tap((value) => set({ status: 'done', value })),
                catchError((error: unknown) => {
                  set({ status: 'failed', words: wordsOf(error) });
                  return EMPTY;
                }),
              );
            }),
          ),
        ),
        /** Puts in the place of what came what is known to have become of it. */
        change: (to: (value: T) => T) => {
          const asked = store.asked();
          if (asked.status === 'done') set({ status: 'done', value: to(asked.value) });
        },
        forget: () => set({ status: 'idle' }),
      };
    }),
  );
}

/** The same for what is asked by nothing: `load()` asks, and asks again. */
export const withLoaded = <T>(ask: (api: Api) => Observable<T>) => withAsked<void, T>(ask);
