import { concat, last, of, switchMap, type Observable } from 'rxjs';
import type { Api } from '../../api/api';

/** Turns steps of a job on and off, by their kinds, one after the other. */
export const turnSteps = (api: Api, job: number, steps: Readonly<Record<string, boolean>>): Observable<unknown> =>
  api.job(job).pipe(
    switchMap(({ sieve }) => {
      const others = sieve.filter(({ kind, on }) => kind in steps && on !== steps[kind]);
      return concat(of(null), ...others.map((was) => api.configure(job, { ...was, on: !was.on }, was)));
    }),
    last(),
  );
