import { dayOf, monthSpan } from '@sieve/core';
import { zoneOf, type Plan, type Settings } from '@sieve/contract';
import type { Db } from '../db/open';
import type { Spent } from './store';

/** What a plan holds and costs, in the month in which something is charged. */
export interface PlanMonth extends Plan {
  /** Like 2026-11. */
  month: string;
}

/** The plan of a service as it is in the month of a time; null where it has none. */
export function planMonthOf(
  settings: Pick<Settings, 'finders' | 'timeZone'>,
  who: string,
  at: number,
): PlanMonth | null {
  const plan = settings.finders.find(({ id }) => id === who)?.plan;
  return plan && plan.credits > 0 ? { ...plan, month: dayOf(at, zoneOf(settings)).slice(0, 7) } : null;
}

/** Notes that the month of a plan was begun: what it holds and costs stays what it was then. */
export const beginPlanMonth = (db: Db, who: string, { month, credits, cents }: PlanMonth, at: number): void =>
  void db.$client
    .prepare('INSERT INTO plan_months (who, month, credits, cents, at) VALUES (?, ?, ?, ?, ?) ON CONFLICT DO NOTHING')
    .run(who, month, credits, cents, at);

/** The plans of a month of which something was used, what they cost, and how many credits were used. */
export const plansOf = (
  db: Db,
  month: string,
  { from, to }: { from: number; to: number },
): { who: string; credits: number; cents: number; at: number; used: number }[] =>
  db.$client
    .prepare(
      `SELECT who, credits, cents, at,
         (SELECT coalesce(sum(used.credits), 0) FROM charges used WHERE used.who = plan_months.who AND used.at >= ? AND used.at < ?) AS used
       FROM plan_months WHERE month = ? ORDER BY cents DESC, who`,
    )
    .all(from, to, month) as { who: string; credits: number; cents: number; at: number; used: number }[];

/** Credits that are left of the plan of a service in the month of a time; 0 where it has none. */
export function creditsLeft(
  spent: Spent,
  settings: Pick<Settings, 'finders' | 'timeZone'>,
  who: string,
  now: number,
): number {
  const plan = planMonthOf(settings, who, now);
  if (!plan) return 0;
  const { from, to } = monthSpan(plan.month, zoneOf(settings));
  return Math.max(0, plan.credits - spent({ who, from, to }).credits);
}

/** The finders as they are paid for so many questions now: one whose plan holds so many still costs nothing more. */
export const findersNow = (
  spent: Spent,
  settings: Pick<Settings, 'finders' | 'timeZone'>,
  questions: number,
  now: number,
): Settings['finders'] =>
  settings.finders.map((finder) =>
    creditsLeft(spent, settings, finder.id, now) >= Math.max(1, questions) ? { ...finder, priceCents: 0 } : finder,
  );
