import { signalStore } from '@ngrx/signals';
import { withAsked } from '../../state/asked';

export const COMPANIES_A_PAGE = 100;

interface CompaniesQuery {
  jobId: number;
  q: string;
  offset: number;
}

/** The companies of a job, a page at a time. */
export const CompaniesStore = signalStore(
  withAsked((api, { jobId, q, offset }: CompaniesQuery) =>
    api.companies(jobId, { q, offset, limit: COMPANIES_A_PAGE }),
  ),
);
