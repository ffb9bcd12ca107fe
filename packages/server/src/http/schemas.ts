import * as z from 'zod';

/** The number at the end of an address. */
export const byId = z.object({ id: z.coerce.number().int().positive() });

/** The schema of a route's answer, checked as it is sent and shown in the OpenAPI. */
export const ok = <T extends z.ZodType>(answer: T) => ({ response: { 200: answer } });
