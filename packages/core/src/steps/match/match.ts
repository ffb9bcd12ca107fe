import type { Step } from '../step';
import { matchOptions, type MatchOptions } from './options';

/** Makes contacts of records, which is done for all at once (`sift/merge.ts`); nobody stops here. */
export const match: Step<MatchOptions> = {
  kind: 'match',
  options: matchOptions,
  about: 'record',
  after: ['tidy'],
  optional: true,
  asks: false,
  prepare: () => () => null,
};
