import { signalStore } from '@ngrx/signals';
import { withAsked } from '../../../../state/asked';

/** The fields of the person's own that a job has. */
export const OwnFieldsStore = signalStore(withAsked((api, job: number) => api.ownFields(job)));
