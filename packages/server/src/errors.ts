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

/** What any thrown thing is to the person: its own words, or the general ones; never its parameters. */
export function toAppError(error: unknown): AppError {
  if (error instanceof AppError) return error;
  const code = (error as { code?: string } | null)?.code;
  const cause = (error as { cause?: { code?: string } } | null)?.cause?.code;
  if ([code, cause].some((c) => c === 'ENOSPC' || c === 'SQLITE_FULL')) return new AppError('disk-full');
  return new AppError('internal');
}
