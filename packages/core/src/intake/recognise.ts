import type { OwnType, RecognisedBy, Target } from '../model/target';
import { ownTypeOf } from '../text/own-value';
import { targetOfName } from './header-names';
import { lostDigits, valueKinds } from './value-kinds';

/** What a column seems to be, how sure (0 to 1), and what should be said about it. */
export interface Recognised {
  name: string;
  target: Target;
  sure: number;
  /** What speaks for it. */
  why: RecognisedBy;
  samples: string[];
  /** Share of the sampled rows that hold a value, 0 to 1. */
  filled: number;
  /** Values that a spreadsheet cut, like 1.13496E+09. */
  lostDigits: number;
  /** What its values are, where it becomes a field of the person's own. */
  type: OwnType;
}

/** Two columns cannot both be one of these. */
const ONCE: ReadonlySet<Target> = new Set<Target>([
  'fullName',
  'firstName',
  'lastName',
  'middleName',
  'title',
  'company',
  'email',
  'phone',
  'website',
  'place',
  'street',
  'city',
  'postcode',
  'region',
  'country',
  'profile',
  'sector',
  'headcount',
]);

/**
 * Recognises the columns of a table from their names and from their values.
 *
 * @param names one per column
 * @param rows a sample of the rows; a missing cell counts as blank
 * @param companyWords words of firms' names beside those that ship
 */
export function recogniseColumns(
  names: string[],
  rows: string[][],
  companyWords: readonly string[] = [],
): Recognised[] {
  const kinds = Object.entries(valueKinds(companyWords)) as [Target, (value: string) => boolean][];
  const columns = names.map((name, i) => {
    const values = rows.map((row) => row[i]?.trim() ?? '').filter(Boolean);
    return { name, values, scores: scoresOf(name, values, kinds) };
  });
  const chosen = new Map<number, { target: Target; sure: number }>();
  const taken = new Set<Target>();
  const ranked = columns
    .flatMap(({ scores }, column) => [...scores].map(([target, sure]) => ({ column, target, sure })))
    .sort((a, b) => b.sure - a.sure || a.column - b.column);
  for (const { column, target, sure } of ranked) {
    if (sure < 0.4 || chosen.has(column) || taken.has(target)) continue;
    chosen.set(column, { target, sure });
    if (ONCE.has(target)) taken.add(target);
  }
  const alone = new Map(chosen);
  inContext(columns, chosen);
  const whyOf = (i: number, name: string, values: string[]): RecognisedBy => {
    const target = chosen.get(i)?.target;
    if (!target) return 'nothing';
    if (alone.get(i)?.target !== target) return 'beside';
    const isNamed = targetOfName(name) === target;
    const test = kinds.find(([kind]) => kind === target)?.[1];
    const isSeen = test !== undefined && values.length > 0 && values.filter(test).length > values.length / 2;
    return isNamed && isSeen ? 'both' : isNamed ? 'heading' : 'values';
  };
  return columns.map(({ name, values }, i) => ({
    name,
    ...(chosen.get(i) ?? { target: values.length === 0 ? ('skip' as const) : ('own' as const), sure: 0.3 }),
    why: whyOf(i, name, values),
    samples: [...new Set(values)].slice(0, 4),
    filled: rows.length === 0 ? 0 : values.length / rows.length,
    lostDigits: values.filter(lostDigits).length,
    type: ownTypeOf(values),
  }));
}

/** How sure each meaning is: a name counts .8 alone, its values raise or lower it. */
function scoresOf(
  name: string,
  values: string[],
  kinds: readonly (readonly [Target, (value: string) => boolean])[],
): Map<Target, number> {
  const scores = new Map<Target, number>();
  const named = targetOfName(name);
  if (named) scores.set(named, named === 'skip' ? 0.75 : 0.8);
  for (const [target, test] of kinds) {
    const share = values.length === 0 ? 0 : values.filter(test).length / values.length;
    if (target === named) scores.set(target, values.length === 0 ? 0.6 : Math.min(0.99, 0.75 + share * 0.25));
    else if (share > 0.5) scores.set(target, (isTelling(target) ? 0.97 : 0.72) * share);
  }
  const emails = scores.get('email') ?? 0;
  // Where honorifics stand, 'Title' means them.
  if (named === 'title' && (scores.get('honorific') ?? 0) > 0.6) scores.set(named, 0.35);
  if (named && named !== 'email' && emails > 0.6) scores.set(named, 0.35);
  return scores;
}

/** So many of the values. */
const MANY = 0.3;

/** Values that can hardly be anything else. */
const isTelling = (target: Target) => target === 'email' || target === 'profile';

const NAMES_OF_PEOPLE: readonly Target[] = ['fullName', 'firstName', 'lastName'];

/** One word each, or two, with a capital and no figure: as last names are. */
const areWords = (values: readonly string[]): boolean =>
  values.length > 0 && values.every((value) => /^\p{Lu}[\p{L}'’-]+( \p{L}+)?$/u.test(value));

/** What a column is beside the others: a name beside first names is a last name, one beside last names a first name; a town with commas
 * a place, an address of a number and a word a street. */
function inContext(
  columns: readonly { values: readonly string[] }[],
  chosen: Map<number, { target: Target; sure: number }>,
) {
  const of = new Map(
    [...chosen].filter(([, { target }]) => NAMES_OF_PEOPLE.includes(target)).map(([i, { target }]) => [target, i]),
  );
  const name = of.get('fullName');
  if (name !== undefined && of.has('firstName') !== of.has('lastName'))
    chosen.set(name, { ...chosen.get(name)!, target: of.has('firstName') ? 'lastName' : 'firstName' });
  const first = of.get('firstName');
  if (first !== undefined && !of.has('lastName') && name === undefined) {
    const beside = [first + 1, first - 1].find((i) => columns[i] && !chosen.has(i) && areWords(columns[i].values));
    if (beside !== undefined) chosen.set(beside, { target: 'lastName', sure: 0.5 });
  }
  for (const [i, known] of chosen) {
    const { values } = columns[i]!;
    const withComma = values.filter((value) => value.includes(',')).length;
    const withNumber = values.filter((value) => /^\d+\w?\s|\s\d+\w?$/.test(value)).length;
    if (known.target === 'city' && withComma > values.length * MANY) chosen.set(i, { ...known, target: 'place' });
    if (known.target === 'place' && withComma === 0 && withNumber > values.length * MANY)
      chosen.set(i, { ...known, target: 'street' });
  }
}
