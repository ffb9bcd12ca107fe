import { wordsIn } from './evaluate';

/** What a search can leave out: a word of these fields, or a whole value. */
const BY_WORD = ['title', 'company'] as const;
const BY_VALUE = ['sector', 'region', 'country'] as const;
export type TightenField = (typeof BY_WORD)[number] | (typeof BY_VALUE)[number];
export type Arrival = Readonly<Record<TightenField, string>> & { fits: boolean };

/** A condition to leave out, and what would stay away by it: of those that came, without what the advice before it takes. */
export interface Tightening {
  field: TightenField;
  text: string;
  misfits: number;
  fits: number;
}

/** Advice that takes less of the misfits is not worth a condition. */
const LEAST_TAKEN = 0.03;
/** At most so many of those that fit may go for each misfit that stays away. */
const LOST_FOR_ONE = 0.1;
/** A word that fewer have is chance. */
const LEAST_SEEN = 5;

/**
 * Which conditions a search could have left out to bring fewer misfits, the best first. They are chosen on every second row and
 * counted on the others, so that a word which stands among the misfits by chance is not praised for it (hold-out, as any text
 * on model selection has it); the counts are those of the rows left for counting, times two.
 *
 * @param most how many conditions, each on top of the ones before
 */
export function tightenings(rows: readonly Arrival[], most = 3): Tightening[] {
  const out: Tightening[] = [];
  let chosenOn = rows.filter((_, i) => i % 2 === 0);
  let countedOn = rows.filter((_, i) => i % 2 === 1);
  const misfitsOf = (some: readonly Arrival[]) => some.reduce((n, { fits }) => n + Number(!fits), 0);
  const atStart = misfitsOf(countedOn);
  while (out.length < most) {
    const best = bestOf(chosenOn);
    if (!best) break;
    const goes = countedOn.filter((row) => keysOf(row).includes(best.key));
    chosenOn = chosenOn.filter((row) => !keysOf(row).includes(best.key));
    const misfits = misfitsOf(goes);
    const fits = goes.length - misfits;
    if (misfits < atStart * LEAST_TAKEN || fits > misfits * LOST_FOR_ONE) continue;
    countedOn = countedOn.filter((row) => !keysOf(row).includes(best.key));
    out.push({ field: best.field, text: best.text, misfits: misfits * 2, fits: fits * 2 });
  }
  return out;
}

/** What a row could be left out by, each once. */
function keysOf(row: Arrival): string[] {
  const keys = new Set<string>();
  for (const field of BY_WORD)
    for (const word of wordsIn(row[field])) if (word.length > 2) keys.add(`${field} ${word}`);
  for (const field of BY_VALUE) if (row[field] !== '') keys.add(`${field} ${row[field]}`);
  return [...keys];
}

function bestOf(rows: readonly Arrival[]): { key: string; field: TightenField; text: string } | undefined {
  const seen = new Map<string, { misfits: number; fits: number }>();
  for (const row of rows)
    for (const key of keysOf(row)) {
      const counts = seen.get(key) ?? { misfits: 0, fits: 0 };
      counts[row.fits ? 'fits' : 'misfits']++;
      seen.set(key, counts);
    }
  let best: string | undefined;
  let most = 0;
  for (const [key, { misfits, fits }] of seen) {
    if (misfits < LEAST_SEEN || fits > misfits * LOST_FOR_ONE) continue;
    const gain = misfits - fits / LOST_FOR_ONE;
    if (gain > most) [best, most] = [key, gain];
  }
  if (best === undefined) return undefined;
  const at = best.indexOf(' ');
  return { key: best, field: best.slice(0, at) as TightenField, text: best.slice(at + 1) };
}
