import { defaultSieve } from '@sieve/core/steps/sieve';
import { drawn, sampleJob, webHarness } from '../../../../testing/web-harness';
import { TryAgain } from './try-again';

it('those without a profile are tried again one looser way at a time, until there is none', async () => {
  const { http } = webHarness();
  const step = { ...defaultSieve().find(({ kind }) => kind === 'profile')!, on: true };
  const job = sampleJob();
  const count = { id: 'profile', came: 9, pass: 2, aside: 7, look: 0, waits: 0, why: { 'no-profile-found': 7 } };
  const counted = { ...job, summary: { ...job.summary!, steps: [count] } };
  const { button, text, fixture, stable } = await drawn(TryAgain, { job: counted, step });
  button('Try 7 again at other companies').click();
  const { request } = http.expectOne(`/api/jobs/${job.id}/steps`);
  expect((request.body as { step: { options: object } }).step.options).toMatchObject({
    looser: ['short-forms', 'one-name', 'other-company'],
  });
  const all = { ...step, options: { looser: ['short-forms', 'one-name', 'other-company', 'anywhere'] } };
  fixture.componentRef.setInput('step', all);
  await stable();
  expect(text()).toBe('');
});
