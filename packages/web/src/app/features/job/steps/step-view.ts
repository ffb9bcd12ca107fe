import type { Type } from '@angular/core';
import type { FormGroup } from '@angular/forms';
import type { SieveStep } from '@sieve/core';
import type { Job, Settings, Sought, StepCount, Summary } from '@sieve/contract';

export interface Chip {
  words: string;
  /** How many it set aside; 0 is not shown. */
  count: number;
  kind: 'keep' | 'drop' | '';
  /** Why its rows were set aside, as the step's `why` counts them; none where there are no rows of it to look at. */
  why?: string;
}

/** A step of a job with what the last sifting counted at it. */
export interface StepState {
  step: SieveStep;
  count: StepCount;
  summary: Summary | null;
}

/** What can be set up about a step; a component that is loaded when it is asked for. */
export interface StepForm {
  form: FormGroup;
  /** The options as the form has them. */
  value: () => SieveStep['options'];
}

/** How one kind of step is shown: a folder, and a line in the registry. A kind without one is shown plainly. */
export interface StepView {
  kind: string;
  /** A few words under its name in the sieve. */
  detail: (state: StepState) => string;
  /** How many it took out, where that is not who was set aside. */
  out?: (state: StepState) => number;
  /** Its rules, each with what it set aside. */
  chips: (state: StepState, serviceName: (id: string) => string) => Chip[];
  /** Something to do beside setting it up: judging pairs, titles. */
  action?: Type<{ job: () => Job; step: () => SieveStep }>;
  /** What the button that sets it up is called. */
  setUp: string;
  /** Words under the title of its form. */
  about: string;
  /** What turning it on means; none for a step that is always on. */
  onWords?: string;
  form?: () => Promise<Type<StepForm>>;
  /** What is looked for at a price: time, cost and yield are said first. */
  seeks?: Sought;
  /** The column that its rows are looked at by. */
  shows: 'place' | 'email' | 'profile' | 'phone';
  /** The services that sell what it asks, by their ids, each a price for each who is asked about; and what is said of that. None where asking costs nothing. */
  buys?: { from: (state: StepState, settings: Settings) => string[]; words: string };
  /** It can be asked for some of those who wait. */
  portions?: boolean;
  /** Its form needs more room than most. */
  wide?: boolean;
  /** What is shown in place of its rows of people, unless they are asked for. */
  panel?: Type<{ job: () => Job; step: () => SieveStep }>;
  /** What is said of its rows above them. */
  strip?: Type<{ job: () => Job; step: () => SieveStep }>;
  /** What the button that asks says before the count; its name otherwise. */
  ask?: string;
  /** Rows can want a look here. */
  looks?: boolean;
  /** Each row says how many records it was merged of. */
  merges?: boolean;
}

export const many = (n: number, one: string, more: string) => `${n.toLocaleString('en-GB')} ${n === 1 ? one : more}`;
export const waitWords = ({ step, count }: StepState, otherwise: string): string =>
  !step.on ? 'off' : count.waits > 0 ? many(count.waits, 'waits', 'wait') : otherwise;

/** Words of a list, each once. */
export const listOf = (text: string, between: RegExp): string[] => [
  ...new Set(
    text
      .split(between)
      .map((word) => word.trim())
      .filter(Boolean),
  ),
];
