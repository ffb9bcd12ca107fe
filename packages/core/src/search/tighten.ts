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
  const keyed = rows.map((row): Keyed => ({ fits: row.fits, keys: keysOf(row) }));
  let chosenOn = keyed.filter((_, i) => i % 2 === 0);
  let countedOn = keyed.filter((_, i) => i % 2 === 1);
  const worth = (some: readonly Keyed[]) => Math.max(LEAST_SEEN, misfitsOf(some) * LEAST_TAKEN);
  const [leastChosen, leastCounted] = [worth(chosenOn), worth(countedOn)];
  const out: Tightening[] = [];
  while (out.length < most) {
    const key = bestOf(chosenOn, leastChosen);
    if (key === undefined) break;
    const stays = ({ keys }: Keyed) => !keys.has(key);
    chosenOn = chosenOn.filter(stays);
    const stay = countedOn.filter(stays);
    const misfits = misfitsOf(countedOn) - misfitsOf(stay);
    const fits = countedOn.length - stay.length - misfits;
    if (misfits < leastCounted || fits > misfits * LOST_FOR_ONE) continue;
    countedOn = stay;
    const at = key.indexOf(' ');
    out.push({
      field: key.slice(0, at) as TightenField,
      text: key.slice(at + 1),
      misfits: misfits * 2,
      fits: fits * 2,
    });
  }
  return out;
}

/** A row with all that it could be left out by: a field and a word or value of it. */
interface Keyed {
  keys: ReadonlySet<string>;
  fits: boolean;
}

const misfitsOf = (rows: readonly Keyed[]) => rows.reduce((n, { fits }) => n + Number(!fits), 0);

function keysOf(row: Arrival): Set<string> {
  const keys = new Set<string>();
  for (const field of BY_WORD)
    for (const word of wordsIn(row[field])) if (word.length > 2) keys.add(`${field} ${word}`);
  for (const field of BY_VALUE) if (row[field] !== '') keys.add(`${field} ${row[field]}`);
  return keys;
}

/** What leaves out the most misfits for the fewest that fit; at least so many misfits. */
function bestOf(rows: readonly Keyed[], least: number): string | undefined {
  const seen = new Map<string, { misfits: number; fits: number }>();
  for (const { keys, fits } of rows)
    for (const key of keys) {
      const counts = seen.get(key) ?? { misfits: 0, fits: 0 };
      counts[fits ? 'fits' : 'misfits']++;
      seen.set(key, counts);
    }
  let best: string | undefined;
  let most = 0;
  for (const [key, { misfits, fits }] of seen) {
    const gain = misfits - fits / LOST_FOR_ONE;
    if (misfits >= least && gain > most) [best, most] = [key, gain];
  }
  return best;
}
