import { catchError, EMPTY, type Observable, tap } from 'rxjs';
import { wordsOf } from '../api/api';

/** Something asked of the server, as a screen's store holds it. */
export type Request<T> =
  { status: 'idle' } | { status: 'asking' } | { status: 'done'; value: T } | { status: 'failed'; words: string };

export const IDLE = { status: 'idle' } as const;

/** What came, null while there is nothing. */
export const valueOf = <T>(request: Request<T>): T | null => (request.status === 'done' ? request.value : null);

/**
 * Asks, and tells how the request stands as it goes on. It never throws: a failure is a state with words.
 *
 * @param keep what is there stays until the answer comes, so that nothing flickers
 */
export function followed<T>(answer: Observable<T>, set: (request: Request<T>) => void, keep = false): Observable<T> {
  if (!keep) set({ status: 'asking' });
  return answer.pipe(
    tap((value) => set({ status: 'done', value })),
    catchError((error: unknown) => {
      set({ status: 'failed', words: wordsOf(error) });
      return EMPTY;
    }),
  );
}
