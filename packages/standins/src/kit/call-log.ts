/** What was asked of a stand-in, newest last; the oldest are forgotten. */
export interface CallLog {
  add(service: string, what: string): void;
  counts(): Record<string, number>;
  last(service: string): string[];
}

const KEPT = 2000;

export function callLog(): CallLog {
  const calls: { service: string; what: string }[] = [];
  const counts: Record<string, number> = {};
  return {
    add(service, what) {
      calls.push({ service, what });
      if (calls.length > KEPT) calls.shift();
      counts[service] = (counts[service] ?? 0) + 1;
    },
    counts: () => ({ ...counts }),
    last: (service) => calls.filter((call) => call.service === service).map((call) => call.what),
  };
}

/** What a test may tell the stand-ins to do otherwise. */
export interface Scenario {
  /** Answers of the finder to fail with this status. */
  finderStatus: number;
  /** The mail servers accept connections and say nothing. */
  mailSilent: boolean;
  /** Extra time before each answer of the finder. */
  finderDelayMs: number;
  /** Answers of the directory to fail with this status. */
  directoryStatus: number;
  directoryDelayMs: number;
  /** A session of the directory ends after so many seconds; 0: as usual. */
  sessionSeconds: number;
  /** Results of the directory shift between pages. */
  shifting: boolean;
  /** People who join within so many days are there already. */
  daysAhead: number;
  /** Answers of web sites to fail with this status. */
  webStatus: number;
  /** Answers of the company service to fail with this status. */
  firmsStatus: number;
  /** Phone services that are out of order, by id. */
  phonesDown: string[];
}

export const PLAIN: Scenario = {
  finderStatus: 0,
  mailSilent: false,
  finderDelayMs: 0,
  directoryStatus: 0,
  directoryDelayMs: 0,
  sessionSeconds: 0,
  shifting: true,
  daysAhead: 0,
  webStatus: 0,
  firmsStatus: 0,
  phonesDown: [],
};
