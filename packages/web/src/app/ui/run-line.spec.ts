import type { Run } from '@sieve/contract';
import { drawn, webHarness } from '../testing/web-harness';
import { RunLine, timeLeft } from './run-line';

const run: Run = {
  id: 9,
  jobId: 2,
  jobName: 'Cheese makers',
  input: { kind: 'ask', step: 'verify' },
  state: 'running',
  done: 1500,
  total: 6000,
  rate: 12.4,
  phase: null,
  result: null,
  createdAt: 0,
  endedAt: null,
  notBefore: null,
  seenAt: null,
};

async function open(change: Partial<Run>) {
  const { http } = webHarness();
  const line = await drawn(RunLine, { run: { ...run, ...change } });
  const detail = () => line.element.querySelector('small')!.textContent;
  return { ...line, http, detail };
}

it.each([
  [{}, '1,500 of 6,000 · 12 a second · 6 min left'],
  [{ rate: 0.4 }, '1,500 of 6,000 · 0.4 a second · 3.1 h left'],
  [{ rate: 0 }, '1,500 of 6,000'],
  [{ total: 0 }, 'starting · 12 a second'],
  [{ phase: 'writing' }, '1,500 of 6,000 · 12 a second · 6 min left · writing'],
  [{ state: 'paused', result: { code: 'enough-for-a-run', rows: 20 } }, 'paused: 20 rows, as many as a run may have'],
  [{ state: 'queued' }, 'queued'],
] as [Partial<Run>, string][])('a run that is %j says %s', async (change, words) => {
  expect((await open(change)).detail()).toBe(words);
});

it('a run that waits for its hours says when it goes on', async () => {
  const { detail } = await open({ state: 'queued', notBefore: new Date('2031-03-04T08:30').getTime() });
  expect(detail()).toMatch(/^goes on .*08:30/);
});

it('the bar is as long as what is done, and is read out', async () => {
  const { element, text } = await open({});
  expect(element.querySelector<HTMLElement>('.bar i')!.style.width).toBe('25%');
  expect(element.querySelector('[role=progressbar]')!.getAttribute('aria-valuenow')).toBe('1500');
  expect(text()).toContain('1,500 of 6,000');
});

it.each([
  ['running', 'Pause', 'pause'],
  ['paused', 'Go on', 'resume'],
  ['running', 'Stop for good', 'cancel'],
] as const)('%s: %s', async (state, name, action) => {
  const { button, http } = await open({ state });
  button(name).click();
  expect(http.expectOne('/api/runs/9').request.body).toEqual({ action });
});

it('sifting ends by itself and is not stopped by hand', async () => {
  expect((await open({ input: { kind: 'sift' } })).element.querySelectorAll('button')).toHaveLength(0);
});

it('time left is in the unit that says most', () => {
  expect([4.2, 89, 90, 600, 5399, 5400, 9000].map(timeLeft)).toEqual([
    '5 s left',
    '89 s left',
    '2 min left',
    '10 min left',
    '90 min left',
    '1.5 h left',
    '2.5 h left',
  ]);
});
