import { allowance, doneAt, pace } from './pace';

const at = (text: string) => new Date(text).getTime();
const safe = pace.parse({});
const always = pace.parse({ rowsADay: 0, fromMinute: 0, toMinute: 1440, workingDays: false });

// Common practice, no source: 2,500 rows a day in working hours on working days.
test('the safe pace opens on working days in working hours', () => {
  expect(allowance(safe, at('2026-11-25T09:00'), 0)).toEqual({ rows: 2500, at: at('2026-11-25T09:00') });
  expect(allowance(safe, at('2026-11-25T07:00'), 0)).toEqual({ rows: 0, at: at('2026-11-25T08:30') });
  expect(allowance(safe, at('2026-11-25T17:30'), 0)).toEqual({ rows: 0, at: at('2026-11-26T08:30') });
  expect(allowance(safe, at('2026-11-25T12:00'), 2500)).toEqual({ rows: 0, at: at('2026-11-26T08:30') });
  expect(allowance(safe, at('2026-11-28T12:00'), 0)).toEqual({ rows: 0, at: at('2026-11-30T08:30') });
  expect(allowance(safe, at('2026-11-28T07:00'), 0)).toEqual({ rows: 0, at: at('2026-11-30T08:30') });
  expect(allowance(always, at('2026-11-28T23:59'), 1e6).rows).toBe(Infinity);
});

// Common practice, no source: 1,034 people take about 13 minutes without emails, which is 754 ms a row.
test('the day it will be done', () => {
  const minutes = (ms: number) => Math.round(ms / 60_000);
  expect(minutes(doneAt(always, 1034, 754, 0))).toBe(13);
  expect(doneAt(safe, 2500, 100, at('2026-11-25T09:00'))).toBe(at('2026-11-25T09:00') + 250_000);
  expect(doneAt(safe, 6000, 100, at('2026-11-25T09:00'))).toBe(at('2026-11-27T08:30') + 100_000);
  // Over the weekend.
  expect(doneAt(safe, 2600, 100, at('2026-11-27T09:00'))).toBe(at('2026-11-30T08:30') + 10_000);
  // Slow rows fill the hours of a day.
  expect(doneAt(safe, 10, 3_600_000, at('2026-11-25T08:30'))).toBe(at('2026-11-26T08:30') + 3_600_000);
  expect(doneAt(safe, 0, 100, 7)).toBe(7);
});
