import { InjectionToken } from '@angular/core';
import type { SieveStep } from '@sieve/core';

/** The options that a step's form begins with. */
export const STEP_OPTIONS = new InjectionToken<SieveStep['options']>('step options');

/** The job whose step is set up. */
export const STEP_JOB = new InjectionToken<number>('job of the step');
