import { TestBed } from '@angular/core/testing';
import { MatDialog } from '@angular/material/dialog';
import type { SieveStep } from '@sieve/core';
import { drawn, sampleJob, webHarness } from '../../testing/web-harness';
import { StepRules } from './step-rules';
import { statesOf } from './steps/registry';

async function open(id: string, options: SieveStep['options'] = {}, why: Record<string, number> = {}) {
  webHarness();
  const job = sampleJob();
  const known = statesOf(job).find(({ step }) => step.id === id)!;
  const state = {
    ...known,
    step: { ...known.step, options: { ...known.step.options, ...options } },
    count: { ...known.count, why },
  };
  const drawing = await drawn(StepRules, { job, state });
  const chips = [...drawing.element.querySelectorAll('.chip')].map(({ textContent }) =>
    textContent.replace(/\s+/g, ' ').trim(),
  );
  return { ...drawing, chips };
}

it('each rule of the screen says what it set aside', async () => {
  const { chips } = await open(
    'screen',
    {
      rules: [
        {
          conditions: [{ field: 'title', values: ['driver', 'intern', 'assistant', 'temp', 'cleaner'] }],
          fate: 'aside',
        },
        { conditions: [{ field: 'company', values: ['dairy'] }], fate: 'keep' },
      ],
      briefTitles: ['Owner', 'Head of Quality'],
      suppression: true,
      atMostPerCompany: 3,
    },
    {
      'title-not-in-brief': 300,
      'rule-0': 120,
      'rule-1': 0,
      suppressed: 4,
      'company-full': 88,
      'by-hand': 2,
      'group-aside': 9,
    },
  );
  expect(chips).toEqual([
    'Title is one of the brief’s 2 −300',
    'Title says driver, intern, assistant and 2 more −120',
    'Company says dairy',
    'Suppression list −4',
    'At most 3 a company −88',
    'By hand −2',
    'Groups −9',
  ]);
});

it('the rows that a rule took are looked at by its chip, and all of them again', async () => {
  const { button, fixture } = await open(
    'screen',
    { rules: [{ conditions: [{ field: 'title', values: ['driver'] }], fate: 'aside' }] },
    { 'rule-0': 120 },
  );
  const looked: (string | null)[] = [];
  fixture.componentInstance.looked.subscribe((why) => looked.push(why));
  button(/driver/).click();
  fixture.componentRef.setInput('why', 'rule-0');
  await fixture.whenStable();
  expect(button(/driver/).getAttribute('aria-pressed')).toBe('true');
  button(/driver/).click();
  expect(looked).toEqual(['rule-0', null]);
});

it('matching says its lines, and how often it expects to be wrong', async () => {
  const { chips, text } = await open('match');
  expect(chips).toEqual(['Merged from 0.80 −640', 'Judged from 0.30', 'Wrong in 1,000 merges: about 4']);
  expect(text()).toContain('Judge 22 pairs');
});

it('tidying, appending and verifying say how they are set up', async () => {
  expect((await open('tidy')).chips).toEqual(['Phones without a country are GB']);
  TestBed.resetTestingModule();
  const finders = { candidates: 5, finders: ['lantern', 'beacon'] };
  expect((await open('append-email', finders)).chips).toEqual([
    '5 addresses tried from patterns',
    'then lantern',
    'then beacon',
  ]);
  TestBed.resetTestingModule();
  expect((await open('verify')).chips).toEqual([
    'valid 425',
    'risky 86',
    'invalid 19',
    'unknown 6',
    'Fresh for 90 days',
  ]);
});

it('opens what changes them, with the job and the step', async () => {
  const { button, fixture } = await open('screen');
  const opened = jest.spyOn(fixture.debugElement.injector.get(MatDialog), 'open').mockReturnValue({} as never);
  button(/Edit rules/).click();
  button(/Groups/).click();
  await import('./step-dialog');
  await import('./steps/screen/groups-dialog');
  await new Promise((resolve) => setTimeout(resolve));
  expect(opened.mock.calls.map(([, config]) => config?.data)).toEqual([
    { jobId: 2, step: expect.objectContaining({ id: 'screen' }) as object },
    { jobId: 2, step: 'screen' },
  ]);
});
