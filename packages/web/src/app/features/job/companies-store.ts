import { inject } from '@angular/core';
import type { CompanyPage } from '@sieve/contract';
import { patchState, signalStore, withMethods, withState } from '@ngrx/signals';
import { rxMethod } from '@ngrx/signals/rxjs-interop';
import { debounceTime, pipe, switchMap } from 'rxjs';
import { Api } from '../../api/api';
import { followed, IDLE, type Request } from '../../state/request';

export const COMPANIES_A_PAGE = 100;

export interface CompaniesQuery {
  jobId: number;
  q: string;
  offset: number;
  /** Of the outcome: a new one is asked for anew. */
  version: number;
}

/** The companies of a job, a page at a time. */
export const CompaniesStore = signalStore(
  withState({ page: IDLE as Request<CompanyPage> }),
  withMethods((store, api = inject(Api)) => ({
    load: rxMethod<CompaniesQuery>(
      pipe(
        debounceTime(60),
        switchMap(({ jobId, q, offset }) =>
          followed(
            api.companies(jobId, { q, offset, limit: COMPANIES_A_PAGE }),
            (page) => patchState(store, { page }),
            store.page().status === 'done',
          ),
        ),
      ),
    ),
  })),
);
