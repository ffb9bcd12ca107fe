import { errorWords, ERRORS, type ErrorCode } from '@sieve/contract';

/** An error that is meant for the person: a code of the table and its details. */
export class AppError extends Error {
  constructor(
    readonly code: ErrorCode,
    readonly details: Record<string, string | number> = {},
  ) {
    super(errorWords(code, details));
  }

  get status(): number {
    return ERRORS[this.code][0];
  }
}

/** What a full disk is called: SQLite finds it when it writes, or when it makes room for the index of its log. */
const FULL = new Set(['ENOSPC', 'EDQUOT', 'SQLITE_FULL', 'SQLITE_IOERR_SHMSIZE', 'SQLITE_IOERR_WRITE']);

/** What any thrown thing is to the person: its own words, or the general ones; never its parameters. */
export function toAppError(error: unknown): AppError {
  if (error instanceof AppError) return error;
  const code = (error as { code?: string } | null)?.code;
  const cause = (error as { cause?: { code?: string } } | null)?.cause?.code;
  for (const known of [code, cause]) {
    if (known !== undefined && FULL.has(known)) return new AppError('disk-full');
    if (known?.startsWith('SQLITE_BUSY') || known?.startsWith('SQLITE_LOCKED')) return new AppError('locked');
  }
  return new AppError('internal');
}

/** A failure as a thread tells it. */
export interface Failure {
  code: ErrorCode;
  details: Record<string, string | number>;
  /** Where it failed, without the message: that may hold somebody's address. Empty for what is told to the person. */
  stack: string;
}

export function failure(error: unknown): Failure {
  const { code, details } = toAppError(error);
  return { code, details, stack: code === 'internal' ? safeStack(error) : '' };
}

const safeStack = (error: unknown) =>
  error instanceof Error
    ? [error.name, ...(error.stack ?? '').split('\n').filter((line) => /^\s+at /.test(line))].join('\n')
    : 'not an error';
