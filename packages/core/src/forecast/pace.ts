import * as z from 'zod';

const minuteOfDay = z.int().min(0).max(1440);

/**
 * How fast rows are pulled. Days and hours are those of the machine's own time zone. What is set without saying is a safe pace: 2,500
 * rows a day in working hours on working days (common practice, no source).
 */
export const pace = z.object({
  /** 0: no limit. */
  rowsADay: z.int().min(0).max(1_000_000).default(2500),
  /** 0: no limit. A run that has so many rows stops, and goes on when it is resumed. */
  rowsARun: z.int().min(0).max(1_000_000).default(0),
  fromMinute: minuteOfDay.default(8 * 60 + 30),
  toMinute: minuteOfDay.default(17 * 60 + 30),
  workingDays: z.boolean().default(true),
});
export type Pace = z.infer<typeof pace>;

/** How many rows may be pulled now, or 0 and when it may go on. Times are milliseconds since 1970. */
export function allowance(given: Pace, now: number, rowsToday: number): { rows: number; at: number } {
  const left = given.rowsADay === 0 ? Infinity : Math.max(0, given.rowsADay - rowsToday);
  const day = new Date(now);
  const minute = day.getHours() * 60 + day.getMinutes();
  const works = !given.workingDays || (day.getDay() !== 0 && day.getDay() !== 6);
  if (works && left > 0 && minute >= given.fromMinute && minute < given.toMinute) return { rows: left, at: now };
  const soon = works && left > 0 && minute < given.fromMinute;
  return { rows: 0, at: opening(given, now, soon ? 0 : 1) };
}

/** When the doors open, so many days from now or on the next working day after. */
function opening(given: Pace, now: number, days: number): number {
  const at = new Date(now);
  at.setDate(at.getDate() + days);
  while (given.workingDays && (at.getDay() === 0 || at.getDay() === 6)) at.setDate(at.getDate() + 1);
  at.setHours(0, given.fromMinute, 0, 0);
  return at.getTime();
}

export const startOfDay = (now: number): number => new Date(now).setHours(0, 0, 0, 0);

/**
 * When so many rows will be there.
 *
 * @param msPerRow how long a row takes while it is pulled
 */
export function doneAt(given: Pace, rows: number, msPerRow: number, now: number, rowsToday = 0): number {
  let at = now;
  let today = rowsToday;
  for (let left = rows; left > 0;) {
    const { rows: may, at: opens } = allowance(given, at, today);
    if (may === 0) {
      if (startOfDay(opens) !== startOfDay(at)) today = 0;
      at = opens;
      continue;
    }
    const untilClosed = startOfDay(at) + given.toMinute * 60_000 - at;
    const now = Math.min(left, may, Math.max(1, Math.floor(untilClosed / Math.max(1, msPerRow))));
    at += now * msPerRow;
    today += now;
    left -= now;
  }
  return at;
}
