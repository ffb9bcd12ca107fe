import type * as z from 'zod';
import { ServiceDown } from './service-down';

/** What a service answered, checked. Throws ServiceDown for an answer of another shape. */
export function readAs<T>(schema: z.ZodType<T>, service: { id: string }, answer: unknown): T {
  const read = schema.safeParse(answer);
  if (!read.success) throw new ServiceDown(service.id, 'its answer could not be read');
  return read.data;
}
