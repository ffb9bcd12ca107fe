import type { Job } from '@sieve/contract';

/** Whom a job is for, in a line: its client, and what was said of the people. */
export const forWhom = ({ client, note }: Pick<Job, 'client' | 'note'>): string =>
  [client, note].filter(Boolean).join(' · ');
