import type { Person } from '../../model/person';
import { jaroWinkler } from '../../text/jaro-winkler';
import { remembered } from '../../text/remembered';
import type { TitleMeaning } from '../../tidy/title-meaning';
import { LEVELS, type Level } from '../../words/titles/ranks';

/** How well a title fits the brief: `near` is the brief's title that comes closest, `share` from 0 to 1. */
export interface TitleFit {
  fit: 'yes' | 'near' | 'no';
  share: number;
  near: string;
}
type Titled = Pick<Person, 'title' | 'level' | 'team'>;

/** From here on a title fits the brief. */
const FITS = 0.99;
/** From here on a title that does not fit wants a look. */
const NEAR = 0.6;
/** Of titles that mean about the same in other words: the same team, and the same level or the next. */
const SAME = 0.9;
const NEXT = 0.75;

const SMALL = new Set(['of', 'the', 'and', 'for', 'in', 'a']);
/** Words of rank say less of what somebody does than the others: a sales manager is no quality manager. */
const RANK = new Set(
  'manager head director lead leader senior junior chief officer executive supervisor group deputy assistant general principal'.split(
    ' ',
  ),
);
const weightOf = (word: string) => (RANK.has(word) ? 0.3 : 1);
const wordsOf = (title: string) =>
  (title.toLowerCase().match(/[\p{L}\p{N}]{2,}/gu) ?? []).filter((word) => !SMALL.has(word));

/**
 * Compares titles with those of a brief. A title that has all words of one of them, in any order, fits. Else it is near where it
 * means about the same, by team and level; where one of the two says no team or no level, the share of the words that are
 * found, near spellings included, decides.
 *
 * @param meaningOf reads level and team out of the brief's titles
 */
export function titleFitter(
  titles: readonly string[],
  meaningOf: (title: string) => TitleMeaning,
): (of: Titled) => TitleFit {
  const wanted = titles
    .map((title) => ({ title, needed: wordsOf(title), ...meaningOf(title) }))
    .filter(({ needed }) => needed.length > 0);
  // Titles come again and again.
  const fitOf = remembered((key): TitleFit => {
    const [title = '', level = '', team = ''] = key.split('\n');
    const words = wordsOf(title);
    let best: TitleFit = { fit: 'no', share: 0, near: '' };
    for (const one of wanted) {
      const spelt = speltAs(words, one.needed);
      const share = spelt >= FITS ? spelt : (meantAs({ level, team }, one) ?? spelt);
      if (share > best.share)
        best = { fit: share >= FITS ? 'yes' : share >= NEAR ? 'near' : 'no', share, near: one.title };
    }
    return best;
  });
  return ({ title, level, team }) => fitOf(`${title}\n${level}\n${team}`);
}

/** The share of the words that are needed which are there, each by its weight. */
function speltAs(words: readonly string[], needed: readonly string[]): number {
  let sum = 0;
  let whole = 0;
  for (const need of needed) {
    whole += weightOf(need);
    sum += weightOf(need) * Math.max(0, ...words.map((word) => (word === need ? 1 : near(word, need))));
  }
  return sum / whole;
}

const near = (a: string, b: string) => {
  const similarity = jaroWinkler(a, b);
  return similarity >= 0.92 ? similarity : 0;
};

/** How near two meanings are; null where one of them is not known. */
function meantAs(a: { level: string; team: string }, b: TitleMeaning): number | null {
  if (a.team === '' || b.team === '' || a.level === '' || b.level === '') return null;
  if (a.team !== b.team) return 0;
  const apart = Math.abs(LEVELS.indexOf(a.level as Level) - LEVELS.indexOf(b.level));
  return apart === 0 ? SAME : apart === 1 ? NEXT : 0;
}
