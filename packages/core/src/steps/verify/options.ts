import * as z from 'zod';

export const verifyOptions = z.object({});
export type VerifyOptions = z.output<typeof verifyOptions>;
