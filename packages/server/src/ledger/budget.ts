import { dayOf, monthSpan, startOfDay } from '@sieve/core';
import { zoneOf, type Left, type ServiceSetting, type Settings } from '@sieve/contract';
import type { Db } from '../db/open';
import { allJobs, jobRow } from '../jobs/store';
import { plansBegunBetween, spentMeter, type Spent } from './store';

/**
 * What a job may spend as its budgets are now: of each time the least that is left of its own, of that of its folder, and of that of all jobs in the
 * month.
 */
export function budgetFor(
  db: Db,
  jobId: number,
  { budgets, timeZone }: Settings,
  spent = spentMeter(db),
): (now: number) => Left {
  const { budgetCents, folder } = jobRow(db, jobId)!;
  const ofFolder = budgets.folders.find((one) => one.folder === folder);
  const inFolder = ofFolder ? allJobs(db).flatMap((job) => (job.folder === folder ? [job.id] : [])) : [];
  const zone = zoneOf({ timeZone });
  return (now) => {
    const left: Left[] = [{ of: 'job', cents: budgetCents - spent({ jobId }).cents }];
    if (ofFolder)
      left.push({
        of: 'folder',
        cents: ofFolder.cents - inFolder.reduce((sum, jobId) => sum + spent({ jobId }).cents, 0),
      });
    if (budgets.monthCents > 0) {
      const { from, to } = monthSpan(dayOf(now, zone).slice(0, 7), zone);
      left.push({
        of: 'month',
        cents: budgets.monthCents - spent({ from, to }).cents - plansBegunBetween(db, from, to),
      });
    }
    const least = left.reduce((one, other) => (other.cents < one.cents ? other : one));
    return { ...least, cents: Math.max(0, least.cents) };
  };
}

/** What the caps of a service leave of it now, in cents, and which of them leaves least; null where it has none. */
export function leftOfCaps(
  spent: Spent,
  { id, capDayCents, capMonthCents }: ServiceSetting,
  { timeZone }: Pick<Settings, 'timeZone'>,
  now: number,
): { cents: number; of: 'day' | 'month' } | null {
  const zone = zoneOf({ timeZone });
  const month = monthSpan(dayOf(now, zone).slice(0, 7), zone);
  const day = { from: startOfDay(now, zone), to: month.to };
  const left = (
    [
      ['day', capDayCents, day],
      ['month', capMonthCents, month],
    ] as const
  ).flatMap(([of, cap, { from, to }]) => (cap > 0 ? [{ of, cents: cap - spent({ who: id, from, to }).cents }] : []));
  return left.sort((a, b) => a.cents - b.cents)[0] ?? null;
}
