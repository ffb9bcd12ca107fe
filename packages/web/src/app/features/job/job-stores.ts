import { signalStore } from '@ngrx/signals';
import type { Job, Sought } from '@sieve/contract';
import { EMPTY, map } from 'rxjs';
import { withAsked } from '../../state/asked';

/** Sources of a job. `version`, of its outcome, has it asked anew. */
export const SourcesStore = signalStore(
  withAsked((api, { jobId }: { jobId: number; version: number }) => api.sources(jobId)),
);

/** What was wrong with the rows of one source. */
export const IssuesStore = signalStore(
  withAsked((api, { jobId, source }: { jobId: number; source: number }) => api.sourceIssues(jobId, source)),
);

/** Everything that was decided about a job. */
export const DecisionsStore = signalStore(
  withAsked((api, jobId: number) => api.decisions({ subject: 'job', subjectId: jobId })),
);

/** One contact in full; none while no row is chosen. */
export const ContactStore = signalStore(
  withAsked((api, { jobId, id }: { jobId: number; id: number | null; version: number }) =>
    id === null ? EMPTY : api.contact(jobId, id),
  ),
);

/** One person read in full. */
export const PersonStore = signalStore(
  withAsked((api, { jobId, id }: { jobId: number; id: number; version: number }) => api.person(jobId, id)),
);

/** What asking would cost, asked anew whenever the job changed; null for steps that cost nothing. */
export const EstimateStore = signalStore(
  withAsked((api, asked: { job: Job; of: Sought } | null) =>
    asked ? api.estimate(asked.job.id, asked.of).pipe(map((estimate) => ({ ...estimate, of: asked.of }))) : EMPTY,
  ),
);

/** What the budgets of a job leave; null for steps that cost nothing. */
export const LeftStore = signalStore(withAsked((api, job: Job | null) => (job ? api.left(job.id) : EMPTY)));

/** The fields of the person's own that a job has. `version`, of its outcome, has them asked anew. */
export const OwnStore = signalStore(withAsked((api, { job }: { job: number; version: number }) => api.ownFields(job)));
