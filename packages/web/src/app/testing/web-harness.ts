import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import type { Provider, Type } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { MAT_DIALOG_DATA, MatDialogRef } from '@angular/material/dialog';
import { provideRouter } from '@angular/router';
import type { Job, Run } from '@sieve/contract';
import { MAIL_OUT } from '@sieve/core/export/columns';
import { defaultSieve } from '@sieve/core/steps/sieve';
import { provideEffects } from '@ngrx/effects';
import { provideState, provideStore, Store } from '@ngrx/store';
import { Subject } from 'rxjs';
import { LIVE, type LiveEvent } from '../api/live';
import { work, workActions } from '../state/work';
import * as effects from '../state/work-effects';

/** What a component needs around it, with a server that only the test answers for. */
export function webHarness(providers: Provider[] = []) {
  const live = new Subject<LiveEvent>();
  TestBed.configureTestingModule({
    providers: [
      provideHttpClient(),
      provideHttpClientTesting(),
      provideRouter([]),
      provideStore(),
      provideState(work),
      provideEffects(effects),
      { provide: LIVE, useValue: live },
      ...providers,
    ],
  });
  const http = TestBed.inject(HttpTestingController);
  return { live, http };
}

/** Draws a component with its inputs. */
export async function drawn<T>(component: Type<T>, inputs: Record<string, unknown> = {}) {
  const fixture: ComponentFixture<T> = TestBed.createComponent(component);
  for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
  await fixture.whenStable();
  const element = fixture.nativeElement as HTMLElement;
  return {
    fixture,
    element,
    stable: () => fixture.whenStable(),
    /** Picks one of the values of a select, by their words; answers with the words there are. */
    pick: async (label: string, words?: string) => {
      const select = element.querySelector<HTMLElement>(`mat-select[aria-label="${label}"]`)!;
      select.querySelector<HTMLElement>('.mat-mdc-select-trigger')!.click();
      await fixture.whenStable();
      const options = [
        ...document.querySelectorAll<HTMLElement>(`#${select.getAttribute('aria-controls')} mat-option`),
      ];
      if (words) options.find(({ textContent }) => textContent.trim() === words)!.click();
      await fixture.whenStable();
      return options.map(({ textContent }) => textContent.trim());
    },
    /** Types into the field that a selector finds. */
    write: async (selector: string, value: string) => {
      const field = element.querySelector<HTMLInputElement | HTMLTextAreaElement>(selector)!;
      field.value = value;
      field.dispatchEvent(new Event('input'));
      await fixture.whenStable();
    },
    text: () => element.textContent.replace(/\s+/g, ' ').trim(),
    button: (name: string | RegExp): HTMLButtonElement => {
      const found = [...element.querySelectorAll('button')].find((button) =>
        (button.getAttribute('aria-label') ?? button.textContent).match(name),
      );
      if (!found) throw new Error(`no button ${String(name)} in ${element.textContent}`);
      return found;
    },
  };
}

/** What a component in a dialog needs: its data, and something to close. */
export const inDialog = (data: unknown, close: () => void = () => undefined): Provider[] => [
  { provide: MAT_DIALOG_DATA, useValue: data },
  { provide: MatDialogRef, useValue: { close } },
];

/** Puts jobs into the store. */
export const haveJobs = (jobs: Job[]) =>
  (TestBed.inject(Store) as unknown as { dispatch: (action: object) => void }).dispatch(workActions.jobsCame({ jobs }));

const count = (id: string, change: object = {}) => ({
  id,
  why: {},
  came: 0,
  pass: 0,
  aside: 0,
  look: 0,
  waits: 0,
  ...change,
});

/** A run of a lookup, in some state. */
export const sampleRun = (id: number, state: Run['state'], change: Partial<Run> = {}): Run => ({
  id,
  jobId: 2,
  jobName: 'Cheese makers',
  input: { kind: 'ask', step: 'append-email' },
  state,
  done: 0,
  total: 10,
  rate: 0,
  phase: null,
  result: null,
  createdAt: 0,
  endedAt: state === 'failed' || state === 'done' ? 1 : null,
  notBefore: null,
  seenAt: null,
  ...change,
});

/** A job half-way through its sieve. */
export const sampleJob = (change: Partial<Job> = {}): Job => ({
  id: 2,
  name: 'Cheese makers',
  client: '',
  folder: '',
  note: 'Larkfell loggers',
  targetValid: 600,
  budgetCents: 9000,
  columns: MAIL_OUT,
  createdAt: 1,
  version: 3,
  sieve: [...defaultSieve()],
  spentCents: 450,
  decisions: 4,
  summary: {
    records: 2581,
    companies: 0,
    sources: 3,
    edits: 10,
    merged: 640,
    pairs: 22,
    expectedError: 0.004,
    steps: [
      count('tidy', { came: 1941, pass: 1935, aside: 6 }),
      count('match', { came: 1935, pass: 1935 }),
      count('screen', { came: 1935, pass: 1200, aside: 544, look: 191 }),
      count('profile', { came: 1200, pass: 1200 }),
      count('append-email', { came: 1200, pass: 1100, aside: 8, waits: 92 }),
      count('verify', { came: 1100, pass: 425, aside: 600, waits: 75 }),
    ],
    verdicts: { valid: 425, risky: 86, invalid: 19, unknown: 6, none: 239 },
    likelyValid: 475,
    freshUntil: null,
  },
  ...change,
});
