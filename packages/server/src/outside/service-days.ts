import { dayOf } from '@sieve/core';
import { zoneOf, type Settings } from '@sieve/contract';
import type { Db } from '../db/open';

/** One question to a service, and why it could not be asked; '' when it answered. */
export interface Call {
  who: string;
  ms: number;
  outage: string;
}

/** Keeps every call of a run, by the days of the person's time zone. */
export const callsKept =
  ({ db, settings, now }: { db: Db; settings: Settings; now: () => number }) =>
  (call: Call): void =>
    keepCall(db, call, dayOf(now(), zoneOf(settings)));

/** Adds a call to its day. */
export const keepCall = (db: Db, { who, ms, outage }: Call, day: string): void =>
  void db.$client
    .prepare(
      `INSERT INTO service_days (who, day, answers, took_ms, outages, last_outage) VALUES (?, ?, ?, ?, ?, ?)
       ON CONFLICT (who, day) DO UPDATE SET answers = answers + excluded.answers, took_ms = took_ms + excluded.took_ms,
         outages = outages + excluded.outages, last_outage = iif(excluded.last_outage = '', last_outage, excluded.last_outage)`,
    )
    .run(who, day, ...(outage === '' ? [1, Math.round(ms), 0, ''] : [0, 0, 1, outage]));

/** How a service was to deal with from a day on. */
export interface Manners {
  /** What an answer took on average; null before any. */
  ms: number | null;
  outages: number;
  /** Why it could not be asked the last time; '' without any. */
  lastOutage: string;
}

export function mannersSince(db: Db, who: string, day: string): Manners {
  const { answers, tookMs, outages } = db.$client
    .prepare(
      `SELECT coalesce(sum(answers), 0) AS answers, coalesce(sum(took_ms), 0) AS tookMs, coalesce(sum(outages), 0) AS outages
       FROM service_days WHERE who = ? AND day >= ?`,
    )
    .get(who, day) as { answers: number; tookMs: number; outages: number };
  const lastOutage = db.$client
    .prepare(
      'SELECT last_outage FROM service_days WHERE who = ? AND day >= ? AND outages > 0 ORDER BY day DESC LIMIT 1',
    )
    .pluck()
    .get(who, day) as string | undefined;
  return { ms: answers === 0 ? null : Math.round(tookMs / answers), outages, lastOutage: lastOutage ?? '' };
}
