import type { Step } from '../step';
import { tidyOptions, type TidyOptions } from './options';

/** Rows are tidied as they are read (`sift/sift-row.ts`); this sets aside those that say of nobody who it is. */
export const tidy: Step<TidyOptions> = {
  kind: 'tidy',
  options: tidyOptions,
  about: 'record',
  after: [],
  optional: false,
  asks: false,
  prepare: () => (contact) => (contact.nobody ? { state: 'aside', code: 'nothing-to-identify' } : null),
};
