import type { ErrorCode, Format, Inspection } from '@sieve/contract';
import type { Column } from '@sieve/core';
import { AppError } from '../errors';
import type { Crew } from '../threads/crew';

export type Inspect = (
  file: string,
  name: string,
  format: Partial<Format>,
  columns: Column[] | null,
  jobId: number | null,
) => Promise<Inspection>;

/** Looks into files in a thread of their own, so that a large one does not keep the server from answering. */
export const inspectInWorker =
  (dbFile: string, crew: Crew): Inspect =>
  async (file, name, format, columns, jobId) => {
    const task = { type: 'inspect' as const, file, name, format, columns, jobId, dbFile };
    const end = await crew.give(task, false, () => undefined).ended;
    if (end?.type === 'inspected') return end.inspection;
    if (end?.type === 'failed') throw new AppError(end.code as ErrorCode, end.details);
    throw new AppError('internal');
  };
