import { signalStore } from '@ngrx/signals';
import type { FirmQuery } from '@sieve/contract';
import { EMPTY } from 'rxjs';
import { withAsked } from '../../../../state/asked';

export const FIRMS_A_PAGE = 200;

/** The companies of those who came to a step, a page at a time. `version`, of the job's outcome, has them asked anew. */
export const FirmsStore = signalStore(
  withAsked((api, { jobId, query }: { jobId: number; query: Partial<FirmQuery>; version: number }) =>
    api.firms(jobId, query),
  ),
);

/** One company in full; none while no row is chosen. */
export const FirmStore = signalStore(
  withAsked((api, { jobId, step, key }: { jobId: number; step: string; key: string; version: number }) =>
    key === '' ? EMPTY : api.firm(jobId, step, key),
  ),
);
