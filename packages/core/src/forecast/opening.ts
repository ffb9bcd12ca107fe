import { DateTime } from 'luxon';
import type { Pace } from './pace';

/** A pace in a time zone: an IANA name, or 'system' for the machine's own. */
export interface Hours extends Pace {
  zone: string;
}

interface Span {
  opens: number;
  closes: number;
}

const inZone = (ms: number, zone: string): DateTime => DateTime.fromMillis(ms, { zone });

export const startOfDay = (now: number, zone: string): number => inZone(now, zone).startOf('day').toMillis();

/** The day in ISO 8601, like 2026-11-26. */
export const dayOf = (now: number, zone: string): string => inZone(now, zone).toISODate()!;

/** When a month like 2026-11 begins and when the next one does, in ms since 1970. */
export function monthSpan(month: string, zone: string): { from: number; to: number } {
  const start = DateTime.fromISO(`${month}-01`, { zone });
  return { from: start.toMillis(), to: start.plus({ months: 1 }).toMillis() };
}

/** How many rows may be pulled now, or 0 and when it may go on. Times are milliseconds since 1970. */
export function allowance(given: Hours, now: number, rowsToday: number): { rows: number; at: number } {
  const left = given.rowsADay === 0 ? Infinity : Math.max(0, given.rowsADay - rowsToday);
  if (left > 0) return openAt(given, now) ? { rows: left, at: now } : { rows: 0, at: nextOpening(given, now) };
  const tomorrow = startOfTomorrow(now, given.zone);
  return { rows: 0, at: openAt(given, tomorrow) ? tomorrow : nextOpening(given, tomorrow) };
}

/**
 * When so many rows will be there. After a fortnight of days, whole weeks are taken to be like the last one.
 *
 * @param msPerRow how long a row takes while it is pulled
 */
export function doneAt(given: Hours, rows: number, msPerRow: number, now: number, rowsToday = 0): number {
  const { zone } = given;
  let at = now;
  let today = rowsToday;
  let left = rows;
  let week = { at, left };
  while (left > 0) {
    const { rows: may, at: next } = allowance(given, at, today);
    if (may === 0) {
      if (startOfDay(next, zone) !== startOfDay(at, zone)) today = 0;
      at = next;
    } else {
      const ends = Math.min(openAt(given, at)!.closes, startOfTomorrow(at, zone));
      const came = Math.min(left, may, Math.max(1, Math.floor((ends - at) / Math.max(1, msPerRow))));
      left -= came;
      today += came;
      at += came * msPerRow;
      if (at >= ends) today = 0;
    }
    if (at - week.at < WEEK_MS) continue;
    const perWeek = week.left - left;
    const weeks = perWeek > 0 ? Math.floor(left / perWeek) - 1 : 0;
    if (weeks > 0) {
      at = inZone(at, zone).plus({ weeks }).toMillis();
      left -= weeks * perWeek;
    }
    week = { at, left };
  }
  return at;
}

const WEEK_MS = 7 * 86_400_000;

const startOfTomorrow = (now: number, zone: string): number =>
  inZone(now, zone).startOf('day').plus({ days: 1 }).toMillis();

/** The hours that begin on a day; null on a day without. */
function hoursOf(given: Hours, day: DateTime): Span | null {
  if (given.workingDays && day.weekday > 5) return null;
  const at = (minute: number, later: number) =>
    day
      .startOf('day')
      .plus({ days: later + Math.floor(minute / 1440) })
      .set({ hour: Math.floor((minute % 1440) / 60), minute: minute % 60 })
      .toMillis();
  return { opens: at(given.fromMinute, 0), closes: at(given.toMinute, given.toMinute <= given.fromMinute ? 1 : 0) };
}

/** The hours that are running: this day's, or those of the evening before. */
function openAt(given: Hours, now: number): Span | null {
  const today = inZone(now, given.zone);
  for (const day of [today, today.minus({ days: 1 })]) {
    const hours = hoursOf(given, day);
    if (hours && hours.opens <= now && now < hours.closes) return hours;
  }
  return null;
}

/** When the next hours begin after now: within a week, since every week has working days. */
function nextOpening(given: Hours, now: number): number {
  const today = inZone(now, given.zone);
  for (let days = 0; days < 8; days++) {
    const hours = hoursOf(given, today.plus({ days }));
    if (hours && hours.opens > now) return hours.opens;
  }
  throw new Error('a week without hours');
}
