import * as z from 'zod';

/** What a service charges for: each answer that verifies, each answer, or each question. */
export const PAYS = ['valid', 'answer', 'question'] as const;
export const pays = z.enum(PAYS);
export type Pays = z.infer<typeof pays>;
