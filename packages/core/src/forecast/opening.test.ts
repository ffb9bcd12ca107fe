import { allowance, dayOf, doneAt, startOfDay, type Hours } from './opening';
import { pace } from './pace';

const zone = 'Europe/Dublin';
const at = (text: string) => new Date(`${text}Z`).getTime();
const hours = (given: object): Hours => ({ ...pace.parse(given), zone });
const safe = hours({});
const always = hours({ rowsADay: 0, fromMinute: 0, toMinute: 1440, workingDays: false });
const night = hours({ rowsADay: 0, fromMinute: 22 * 60, toMinute: 6 * 60, workingDays: false });

// Common practice, no source: 2,500 rows a day in working hours on working days. In November Dublin has UTC's time.
test('the safe pace opens on working days in working hours', () => {
  expect(allowance(safe, at('2026-11-25T09:00'), 0)).toEqual({ rows: 2500, at: at('2026-11-25T09:00') });
  expect(allowance(safe, at('2026-11-25T07:00'), 0)).toEqual({ rows: 0, at: at('2026-11-25T08:30') });
  expect(allowance(safe, at('2026-11-25T17:30'), 0)).toEqual({ rows: 0, at: at('2026-11-26T08:30') });
  expect(allowance(safe, at('2026-11-25T12:00'), 2500)).toEqual({ rows: 0, at: at('2026-11-26T08:30') });
  expect(allowance(safe, at('2026-11-28T12:00'), 0)).toEqual({ rows: 0, at: at('2026-11-30T08:30') });
  expect(allowance(safe, at('2026-11-28T07:00'), 0)).toEqual({ rows: 0, at: at('2026-11-30T08:30') });
  expect(allowance(always, at('2026-11-28T23:59'), 1e6).rows).toBe(Infinity);
});

test('hours over midnight belong to the evening on which they begin; the rows of a day do not', () => {
  for (const open of ['2026-11-25T22:00', '2026-11-26T00:00', '2026-11-26T05:59'])
    expect(allowance(night, at(open), 0)).toEqual({ rows: Infinity, at: at(open) });
  expect(allowance(night, at('2026-11-26T06:00'), 0)).toEqual({ rows: 0, at: at('2026-11-26T22:00') });
  const working = { ...night, workingDays: true };
  // Saturday's small hours are Friday's; Monday's are Sunday's.
  expect(allowance(working, at('2026-11-28T03:00'), 0).rows).toBe(Infinity);
  expect(allowance(working, at('2026-11-30T03:00'), 0)).toEqual({ rows: 0, at: at('2026-11-30T22:00') });
  const few = { ...night, rowsADay: 100 };
  expect(allowance(few, at('2026-11-25T23:00'), 100)).toEqual({ rows: 0, at: at('2026-11-26T00:00') });
  expect(allowance(few, at('2026-11-26T01:00'), 100)).toEqual({ rows: 0, at: at('2026-11-27T00:00') });
  expect(doneAt(few, 150, 1000, at('2026-11-25T23:00'))).toBe(at('2026-11-26T00:00') + 50_000);
  expect(pace.safeParse({ fromMinute: 540, toMinute: 540 }).success).toBe(false);
});

// The clock goes forward on 28 March 2027 in Dublin, at 1:00 (Directive 2000/84/EC: the last Sunday in March).
test('days and hours are those of the time zone, also when its clock changes', () => {
  expect(allowance(safe, at('2027-03-26T18:00'), 0).at).toBe(at('2027-03-29T07:30'));
  expect(allowance({ ...safe, zone: 'Asia/Kolkata' }, at('2026-11-25T02:59'), 0).at).toBe(at('2026-11-25T03:00'));
  expect(startOfDay(at('2026-11-25T20:00'), 'Asia/Kolkata')).toBe(at('2026-11-25T18:30'));
  expect(dayOf(at('2026-11-25T20:00'), 'Asia/Kolkata')).toBe('2026-11-26');
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
  // A row a day, for nearly three thousand years, is worked out at once.
  const slow = { ...always, rowsADay: 1, zone: 'UTC' };
  expect(doneAt(slow, 1_000_000, 1000, at('2026-11-25T00:00'))).toBe(
    at('2026-11-25T00:00') + 999_999 * 86_400_000 + 1000,
  );
});
