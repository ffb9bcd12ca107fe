import * as z from 'zod';
import { count } from './model';

export const spendDay = z.object({ day: z.string(), cents: count, bought: count });
export type SpendDay = z.output<typeof spendDay>;
