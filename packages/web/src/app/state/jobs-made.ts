import { inject, Injectable } from '@angular/core';
import type { NewJob } from '@sieve/contract';
import { Store } from '@ngrx/store';
import { map, of, tap, type Observable } from 'rxjs';
import { Api } from '../api/api';
import { workActions } from './work';

const UNSAID = { client: '', folder: '', note: '', targetValid: 0, budgetCents: 0 };

/** Jobs that come to be with what is brought in. */
@Injectable({ providedIn: 'root' })
export class JobsMade {
  private readonly api = inject(Api);
  private readonly store = inject(Store);

  /** The job that was chosen; for null a new one is made, of which all but the name can be said later. */
  jobFor(chosen: number | null, said: Pick<NewJob, 'name'> & Partial<NewJob>): Observable<number> {
    if (chosen !== null) return of(chosen);
    return this.api.createJob({ ...UNSAID, ...said }).pipe(
      tap((job) => this.store.dispatch(workActions.jobCame({ job }))),
      map(({ id }) => id),
    );
  }
}
