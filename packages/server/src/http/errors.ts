import type { FastifyInstance } from 'fastify';
import { hasZodFastifySchemaValidationErrors } from 'fastify-type-provider-zod';
import { AppError, toAppError } from '../errors';

/** One handler for every error: the code, its words, and nothing that holds somebody's address in the log. */
export function errors(app: FastifyInstance): void {
  app.setErrorHandler((error, request, reply) => {
    const known = asAppError(error);
    if (known.code === 'internal') {
      const { name, stack } = error as Error;
      request.log.error({ name, at: stack?.split('\n').filter((line) => /^\s+at /.test(line)) }, 'request failed');
    }
    return reply.status(known.status).send({ code: known.code, message: known.message, details: known.details });
  });
}

function asAppError(error: unknown): AppError {
  if (hasZodFastifySchemaValidationErrors(error)) {
    const [first] = error.validation;
    return new AppError('bad-request', {
      detail: `${first?.instancePath.replace(/^\//, '') || 'body'}: ${first?.message ?? ''}`,
    });
  }
  const { code, statusCode } = error as { code?: string; statusCode?: number };
  if (code === 'FST_ERR_CTP_BODY_TOO_LARGE') return new AppError('too-large', { limit: 'the limit' });
  if (statusCode !== undefined && statusCode < 500 && !(error instanceof AppError))
    return new AppError('bad-request', { detail: code ?? String(statusCode) });
  return toAppError(error);
}
