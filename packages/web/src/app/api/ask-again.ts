import type { HttpErrorResponse, HttpInterceptorFn } from '@angular/common/http';
import { retry, throwError, timer } from 'rxjs';

const TIMES = 5;
const FIRST_MS = 300;

/** What is only read is asked for again, ever later, when it did not reach the server: some nine seconds long. */
export const askAgain: HttpInterceptorFn = (request, next) =>
  request.method === 'GET'
    ? next(request).pipe(
        retry({
          count: TIMES,
          delay: (error: HttpErrorResponse, times) =>
            error.status === 0 ? timer(FIRST_MS * 2 ** (times - 1)) : throwError(() => error),
        }),
      )
    : next(request);
