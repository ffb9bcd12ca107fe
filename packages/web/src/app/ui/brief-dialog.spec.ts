import type { SieveStep } from '@sieve/core';
import type { Job } from '@sieve/contract';
import { drawn, inDialog, sampleJob, webHarness } from '../testing/web-harness';
import { BriefDialog } from './brief-dialog';

async function open(job: Job | null = null) {
  const close = jest.fn();
  const { http } = webHarness(inDialog(job, close));
  return { ...(await drawn(BriefDialog)), http, close };
}

it('a job needs a name; money becomes cents', async () => {
  const { write, button, close, http } = await open();
  expect(button(/Create/).disabled).toBe(true);
  await write('[formcontrolname=name]', 'Cheese makers');
  await write('[formcontrolname=budget]', '19.99');
  await write('[formcontrolname=targetValid]', '600');
  expect(button(/Create/).disabled).toBe(false);
  button(/Create/).click();
  expect(http.expectOne({ method: 'POST', url: '/api/jobs' }).request.body).toMatchObject({
    name: 'Cheese makers',
    targetValid: 600,
    budgetCents: 1999,
  });
  expect(close).toHaveBeenCalledTimes(1);
});

it('no budget and no target can be below nothing', async () => {
  const { write, button } = await open();
  await write('[formcontrolname=name]', 'Cheese makers');
  await write('[formcontrolname=budget]', '-1');
  expect(button(/Create/).disabled).toBe(true);
});

it('the brief of a job is changed at any time: only what was changed is sent, titles to the step that keeps to them', async () => {
  const job = sampleJob();
  const { write, button, http, close } = await open(job);
  await write('[formcontrolname=client]', 'Larkfell');
  await write('[formcontrolname=budget]', '120');
  await write('[formcontrolname=titles]', 'Head of Quality\n\n Production Manager ');
  await write('[formcontrolname=perCompany]', '2');
  await write('[formcontrolname=sectors]', 'Cheese making, Dairy');
  await write('[formcontrolname=headcountTo]', '200');
  await write('[formcontrolname=freshDays]', '30');
  await write('[formcontrolname=wrongInThousand]', '2.5');
  await write('[formcontrolname=places]', 'GB, IE,, Cumbria');
  button(/Save/).click();
  const patch = http.expectOne({ method: 'PATCH', url: '/api/jobs/2' });
  expect(patch.request.body).toEqual({
    client: 'Larkfell',
    budgetCents: 12_000,
    was: { client: '', budgetCents: 9000 },
  });
  const steps = http
    .match({ method: 'POST', url: '/api/jobs/2/steps' })
    .map(({ request }) => (request.body as { step: SieveStep }).step);
  expect(steps.map(({ kind, options }) => ({ kind, options }))).toMatchObject([
    {
      kind: 'screen',
      options: {
        briefTitles: ['Head of Quality', 'Production Manager'],
        briefPlaces: ['GB', 'IE', 'Cumbria'],
        briefSectors: ['Cheese making', 'Dairy'],
        briefHeadcountFrom: 0,
        briefHeadcountTo: 200,
        atMostPerCompany: 2,
        suppression: true,
      },
    },
    { kind: 'match', options: { acceptedError: 0.0025, mergeFrom: 0.8 } },
    { kind: 'verify', options: { freshDays: 30 } },
  ]);
  expect(close).toHaveBeenCalledTimes(1);
});

it('a brief that was not changed sends nothing', async () => {
  const { button, http } = await open(sampleJob());
  button(/Save/).click();
  http.expectNone(({ method }) => method !== 'GET');
});
