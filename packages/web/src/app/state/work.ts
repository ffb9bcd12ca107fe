import type { Job, NewJob, Run } from '@sieve/contract';
import { createEntityAdapter, type EntityState } from '@ngrx/entity';
import { createActionGroup, createFeature, createReducer, createSelector, emptyProps, on, props } from '@ngrx/store';

/** What outlives a screen: the jobs, the runs, and whether the server is there. */
export const workActions = createActionGroup({
  source: 'Work',
  events: {
    Opened: emptyProps(),
    'Jobs Came': props<{ jobs: Job[] }>(),
    'Job Came': props<{ job: Job }>(),
    'Job Changed': props<{ jobId: number }>(),
    'Search Changed': props<{ searchId: number }>(),
    'Runs Came': props<{ runs: Run[] }>(),
    'Run Moved': props<{ run: Run }>(),
    'Run Asked': props<{ id: number; action: 'pause' | 'resume' | 'cancel' }>(),
    'Job Wanted': props<{ job: NewJob; thenBringIn: boolean }>(),
    'Connection Lost': emptyProps(),
    'Connection Back': emptyProps(),
    Failed: props<{ words: string }>(),
  },
});

const jobs = createEntityAdapter<Job>({ sortComparer: (a, b) => b.createdAt - a.createdAt || b.id - a.id });
const runs = createEntityAdapter<Run>({ sortComparer: (a, b) => b.id - a.id });

interface WorkState {
  jobs: EntityState<Job>;
  runs: EntityState<Run>;
  loaded: boolean;
  connected: boolean;
}

const initial: WorkState = {
  jobs: jobs.getInitialState(),
  runs: runs.getInitialState(),
  loaded: false,
  connected: true,
};

export const work = createFeature({
  name: 'work',
  reducer: createReducer(
    initial,
    on(workActions.jobsCame, (state, { jobs: all }): WorkState => ({
      ...state,
      loaded: true,
      jobs: jobs.setAll(all, state.jobs),
    })),
    on(workActions.jobCame, (state, { job }): WorkState => ({ ...state, jobs: jobs.upsertOne(job, state.jobs) })),
    on(workActions.runsCame, (state, { runs: all }): WorkState => ({ ...state, runs: runs.setAll(all, state.runs) })),
    on(workActions.runMoved, (state, { run }): WorkState => ({ ...state, runs: runs.upsertOne(run, state.runs) })),
    on(workActions.connectionLost, (state): WorkState => ({ ...state, connected: false })),
    on(workActions.connectionBack, (state): WorkState => ({ ...state, connected: true })),
  ),
  extraSelectors: ({ selectJobs, selectRuns }) => {
    const selectAllJobs = createSelector(selectJobs, jobs.getSelectors().selectAll);
    const selectAllRuns = createSelector(selectRuns, runs.getSelectors().selectAll);
    return {
      selectAllJobs,
      selectAllRuns,
      selectJobEntities: createSelector(selectJobs, jobs.getSelectors().selectEntities),
      /** Work that is worth a line: sifting is shown only while it lasts. */
      selectLiveRuns: createSelector(selectAllRuns, (all) =>
        all.filter(({ state }) => state === 'running' || state === 'queued' || state === 'paused'),
      ),
    };
  },
});
