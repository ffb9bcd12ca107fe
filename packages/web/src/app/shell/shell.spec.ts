import { TestBed } from '@angular/core/testing';
import { MatDialog } from '@angular/material/dialog';
import type { Run } from '@sieve/contract';
import { drawn, webHarness } from '../testing/web-harness';
import { Shell } from './shell';

const run: Run = {
  id: 9,
  jobId: 2,
  jobName: 'Cheese makers',
  input: { kind: 'ask', step: 'verify' },
  state: 'running',
  done: 15,
  total: 60,
  rate: 0,
  phase: null,
  result: null,
  createdAt: 0,
  endedAt: null,
  notBefore: null,
  seenAt: null,
};

async function open(runs: Run[] = []) {
  const { http, live } = webHarness();
  const shell = await drawn(Shell);
  http.expectOne('/api/jobs').flush([]);
  http.expectOne('/api/runs').flush(runs);
  await shell.stable();
  const opened = jest.spyOn(TestBed.inject(MatDialog), 'open').mockReturnValue({} as never);
  const press = (key: string, more: KeyboardEventInit = {}, target: EventTarget = document.body) => {
    const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more });
    target.dispatchEvent(event);
    return event.defaultPrevented;
  };
  const settle = () => new Promise((resolve) => setTimeout(resolve, 20));
  return { ...shell, http, live, opened, press, settle };
}

it('asks for everything at the start, and shows what runs', async () => {
  const { text, button, live, stable } = await open([run]);
  expect(text()).toContain('1 running');
  button('1 running').click();
  await stable();
  expect(text()).toContain('Verify Cheese makers');
  live.next({ type: 'run', run: { ...run, state: 'done' } });
  await stable();
  expect(text()).toContain('nothing runs');
  expect(text()).toContain('Nothing runs now.');
  expect(document.body.textContent).toContain('Cheese makers: Verify done.');
});

it('a run that failed is told with its reason', async () => {
  const { live } = await open([run]);
  live.next({
    type: 'run',
    run: { ...run, state: 'failed', result: { code: 'failed', error: 'disk-full', details: {} } },
  });
  expect(document.body.textContent).toContain('Cheese makers: Verify. The disk is full.');
});

it('says when the server is gone and that nothing is lost; once it is back everything is asked for again', async () => {
  const { text, live, http, stable } = await open();
  live.next({ type: 'lost' });
  await stable();
  expect(text()).toContain('The server does not answer. Nothing is lost');
  live.next({ type: 'back' });
  await stable();
  expect(text()).not.toContain('does not answer');
  http.expectOne('/api/jobs');
  http.expectOne('/api/runs');
});

it('a job that changed is asked for once, however many news come', async () => {
  const { live, http, settle } = await open();
  for (let i = 0; i < 5; i++) live.next({ type: 'job', jobId: 2 });
  await settle();
  await new Promise((resolve) => setTimeout(resolve, 80));
  http.expectOne('/api/jobs/2');
});

it('Ctrl K finds, ? lists the keys; not while somebody types or another dialog is open', async () => {
  const { press, opened, settle, element } = await open();
  expect(press('k', { ctrlKey: true })).toBe(true);
  await settle();
  press('?');
  await settle();
  expect(opened.mock.calls.map(([component]) => (component as { name: string }).name.replace('_', ''))).toEqual([
    'Commands',
    'Keys',
  ]);
  const field = element.appendChild(document.createElement('input'));
  press('?', {}, field);
  await settle();
  expect(opened).toHaveBeenCalledTimes(2);
  jest.spyOn(TestBed.inject(MatDialog), 'openDialogs', 'get').mockReturnValue([{} as never]);
  press('k', { metaKey: true });
  await settle();
  expect(opened).toHaveBeenCalledTimes(2);
});
