import * as z from 'zod';

const minuteOfDay = z.int().min(0).max(1440);

/**
 * How fast rows are pulled; `opening.ts` says when. Days and hours are those of the person's time zone. What is set without
 * saying is a safe pace: 2,500 rows a day in working hours on working days (common practice, no source).
 */
export const pace = z
  .object({
    /** 0: no limit. */
    rowsADay: z.int().min(0).max(1_000_000).default(2500),
    /** 0: no limit. A run that has so many rows stops, and goes on when it is resumed. */
    rowsARun: z.int().min(0).max(1_000_000).default(0),
    fromMinute: minuteOfDay.default(8 * 60 + 30),
    /** Before `fromMinute`: hours over midnight, which belong to the day on which they begin. */
    toMinute: minuteOfDay.default(17 * 60 + 30),
    workingDays: z.boolean().default(true),
  })
  .refine(({ fromMinute, toMinute }) => fromMinute !== toMinute, {
    path: ['toMinute'],
    error: 'the hours end when they begin; 0 to 1440 is all day',
  });
export type Pace = z.infer<typeof pace>;
