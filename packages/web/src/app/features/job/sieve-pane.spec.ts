import { defaultSieve } from '@sieve/core/steps/sieve';
import { drawn, sampleJob, webHarness } from '../../testing/web-harness';
import { SievePane } from './sieve-pane';
import type { Job } from '@sieve/contract';

async function open(job: Job) {
  webHarness();
  const pane = await drawn(SievePane, { job, step: 'screen' });
  const trays = [...pane.element.querySelectorAll<HTMLButtonElement>('.tray')];
  const words = trays.map((tray) =>
    [...tray.querySelectorAll('b, small, .c')].map(({ textContent }) => textContent.trim()).filter(Boolean),
  );
  return { ...pane, trays, words };
}

it('each tray says how many are left, what was taken out and what is to do', async () => {
  const { words, trays } = await open(sampleJob());
  expect(words).toEqual([
    ['Sources', '3 sources', '2,581'],
    ['Tidy', '10 changes', '2,575', '−6'],
    ['Match duplicates', '22 pairs to judge', '1,935', '−640'],
    ['Whose address', 'off'],
    ['Screen', '191 want a look', '1,200', '−544'],
    ['Find profiles', 'off'],
    ['Companies', 'off'],
    ['Append email', '92 wait', '1,100', '−8'],
    ['Verify', '75 wait', '425', '−600'],
    ['Append phone', 'off'],
  ]);
  expect(trays.map((tray) => tray.getAttribute('aria-current'))).toEqual([
    null,
    null,
    null,
    null,
    'step',
    null,
    null,
    null,
    null,
    null,
  ]);
});

it('an empty job counts nothing, and steps that are off say so', async () => {
  const sieve = defaultSieve().map((step) => ({
    ...step,
    on: step.on && !['append-email', 'verify'].includes(step.id),
  }));
  const { words } = await open(sampleJob({ summary: null, sieve }));
  expect(words.map(([name, detail]) => [name, detail])).toEqual([
    ['Sources', 'none yet'],
    ['Tidy', '0'],
    ['Match duplicates', '0'],
    ['Whose address', 'off'],
    ['Screen', '0 rules'],
    ['Find profiles', 'off'],
    ['Companies', 'off'],
    ['Append email', 'off'],
    ['Verify', 'off'],
    ['Append phone', 'off'],
  ]);
});

it('one of something is one', async () => {
  const { summary } = sampleJob();
  const { words } = await open(sampleJob({ summary: { ...summary!, sources: 1, pairs: 1 } }));
  expect([words[0]![1], words[2]![1]]).toEqual(['1 source', '1 pair to judge']);
});

it('trays lead to their steps, the first one to the sources', async () => {
  const { trays, fixture } = await open(sampleJob());
  const chosen: unknown[] = [];
  fixture.componentInstance.chosen.subscribe((step) => chosen.push(step));
  fixture.componentInstance.sources.subscribe(() => chosen.push('sources'));
  for (const tray of trays) tray.click();
  expect(chosen).toEqual([
    'sources',
    'tidy',
    'match',
    'owner',
    'screen',
    'profile',
    'company',
    'append-email',
    'verify',
    'append-phone',
  ]);
});
