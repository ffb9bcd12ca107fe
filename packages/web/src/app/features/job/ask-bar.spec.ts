import type { AskEstimate, Run } from '@sieve/contract';
import { drawn, sampleJob, webHarness } from '../../testing/web-harness';
import { AskBar } from './ask-bar';
import { statesOf } from './steps/registry';

const estimate: AskEstimate = {
  contacts: 92,
  seconds: 240,
  valid: { low: 40, likely: 55, high: 70 },
  cost: { lowCents: 510, likelyCents: 600, highCents: 690, mostCents: 1380 },
  leftCents: 8550,
  leftOf: 'job',
  mostEachCents: 15,
  rests: { lookups: 120, timed: 90 },
  finders: ['lantern'],
  budgetMayEnd: false,
};
const run: Run = {
  id: 9,
  jobId: 2,
  jobName: 'Cheese makers',
  input: { kind: 'ask', step: 'append-email' },
  state: 'running',
  done: 10,
  total: 92,
  rate: 2,
  phase: null,
  result: null,
  createdAt: 0,
  endedAt: null,
  notBefore: null,
  seenAt: null,
};
const job = sampleJob();

async function open(step: string, runs: Run[] = [], given: Partial<AskEstimate> = {}) {
  const { http } = webHarness();
  const bar = await drawn(AskBar, { job, state: statesOf(job).find((state) => state.step.id === step)!, runs });
  if (step === 'append-email') http.expectOne('/api/jobs/2/estimate?of=addresses').flush({ ...estimate, ...given });
  await bar.stable();
  return { ...bar, http };
}

it('says time, yield and cost before anything is asked, and starts the run', async () => {
  const { text, button, http } = await open('append-email');
  for (const words of [
    '92 people lack an address',
    '55 valid (40 to 70)',
    'about 4 min',
    'likely £6 (£5.10 to £6.90), at most',
    'at most £13.80 of the £85.50 left',
  ])
    expect(text()).toContain(words);
  expect(text()).not.toContain('budget may end');
  button(/Look up 92/).click();
  expect(http.expectOne('/api/jobs/2/runs').request.body).toEqual({ step: 'append-email' });
});

it('says when the budget may end, and when patterns are all there is', async () => {
  const short = await open('append-email', [], {
    budgetMayEnd: true,
    finders: [],
    cost: { lowCents: 0, likelyCents: 0, highCents: 0, mostCents: 0 },
  });
  expect(short.text()).toContain('The budget may end first; it is never passed.');
  expect(short.text()).toContain('patterns alone');
  expect(short.button(/Look up 92\s*$/)).toBeTruthy();
});

it('verifying costs nothing and says so', async () => {
  const { text, button, http } = await open('verify');
  expect(text()).toContain('75 addresses to verify. Asking costs nothing.');
  button(/Verify 75/).click();
  expect(http.expectOne('/api/jobs/2/runs').request.body).toEqual({ step: 'verify' });
});

it('while the run goes on its line stands in place of the offer', async () => {
  const { text, http, button } = await open('append-email', [run]);
  expect(text()).toContain('10 of 92 · 2.0 a second · 41 s left');
  expect(text()).not.toContain('Look up');
  button('Pause').click();
  expect(http.expectOne('/api/runs/9').request.body).toEqual({ action: 'pause' });
});

it('a budget that may end first is raised by what is missing, with one click', async () => {
  const { text, button, http } = await open('append-email', [], { budgetMayEnd: true, leftCents: 300 });
  expect(text()).toContain('Raise the budget by £10.80');
  button(/Raise/).click();
  const asked = http.expectOne({ method: 'PATCH', url: '/api/jobs/2' });
  expect(asked.request.body).toEqual({
    budgetCents: job.budgetCents + 1080,
    was: { budgetCents: job.budgetCents },
  });
});
