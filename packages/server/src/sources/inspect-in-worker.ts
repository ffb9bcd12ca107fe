import type { ErrorCode, Inspection, Settings } from '@sieve/contract';
import { AppError } from '../errors';
import type { Crew } from '../threads/crew';
import type { ToInspect } from './inspect';

export type Inspect = (what: ToInspect) => Promise<Inspection>;

/** Looks into files in a thread of their own, so that a large one does not keep the server from answering. */
export const inspectInWorker =
  (dbFile: string, settings: () => Settings, crew: Crew): Inspect =>
  async (what) => {
    const task = { type: 'inspect' as const, ...what, dbFile, settings: settings() };
    const end = await crew.give(task, false, () => undefined).ended;
    if (end?.type === 'inspected') return end.inspection;
    if (end?.type === 'failed') throw new AppError(end.code as ErrorCode, end.details);
    throw new AppError('internal');
  };
