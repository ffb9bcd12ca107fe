import { InjectionToken } from '@angular/core';
import type { SieveStep } from '@sieve/core';

/** The options that a step's form begins with. */
export const STEP_OPTIONS = new InjectionToken<SieveStep['options']>('step options');
