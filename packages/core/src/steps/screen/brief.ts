import type { Person } from '../../model/person';
import { fold } from '../../text/fold';
import { headcountRange } from '../../text/headcount';
import { remembered } from '../../text/remembered';
import { titleReader } from '../../tidy/title-meaning';
import type { BRIEF_PARTS, ScreenOptions } from './options';
import { titleFitter } from './title-fit';
import { wordFinder } from '../../text/word-finder';

export type Brief = Pick<ScreenOptions, Extract<keyof ScreenOptions, `brief${string}`>>;

type BriefPartName = (typeof BRIEF_PARTS)[number];
type Known = Pick<Person, Exclude<BriefPartName, 'place'> | 'city' | 'region' | 'country'>;

/** How somebody fits one part of a brief. `is`: what is known of them; `near`: the brief's title that comes closest. */
export interface BriefPart {
  part: BriefPartName;
  fit: 'yes' | 'near' | 'no' | 'unknown';
  is: string;
  near: string;
  /** Of titles: how near, from 0 to 1. */
  share: number;
}

/** What of a brief somebody does not fit. `look`: near enough for a person to look at. */
export interface BriefMisfit {
  code: `${BriefPartName}-not-in-brief` | 'title-near-brief';
  look: boolean;
  why: Record<string, string | number>;
}

const ofTitle = (part: BriefPartName) => part === 'level' || part === 'team';

type Check = (person: Known) => BriefPart;

/**
 * How each person fits each part that a brief asks for: places, sectors, headcount, levels, teams, titles. What is not known of
 * somebody is unknown, but for a title, which then is none of the brief's. A headcount given as a band fits where it may lie
 * within the limits.
 *
 * @param meaningOf reads level and team out of the brief's titles
 */
function checksOf(brief: Brief, meaningOf: ReturnType<typeof titleReader>): Check[] {
  const part = (part: BriefPartName, fit: BriefPart['fit'], is: string): BriefPart => ({
    part,
    fit: is === '' && fit !== 'yes' ? 'unknown' : fit,
    is,
    near: '',
    share: 0,
  });
  const yes = (fits: boolean) => (fits ? 'yes' : 'no');
  const places = new Set(brief.briefPlaces.map(fold));
  const sectorWords = remembered(wordFinder(brief.briefSectors));
  const range = remembered(headcountRange);
  const { briefHeadcountFrom: from, briefHeadcountTo: to } = brief;
  const titleFit = titleFitter(brief.briefTitles, meaningOf);
  const checks: Check[] = [];
  if (places.size > 0)
    checks.push(({ country, region, city }) => {
      const known = [country, region, city].filter((place) => place !== '');
      return part('place', yes(known.some((place) => places.has(fold(place)))), known.join(', '));
    });
  if (brief.briefSectors.length > 0)
    checks.push(({ sector }) => part('sector', yes(sectorWords(sector) !== ''), sector));
  if (from > 0 || to > 0)
    checks.push(({ headcount }) => {
      const people = range(headcount);
      return part(
        'headcount',
        people ? yes(people.to >= from && (to === 0 || people.from <= to)) : 'unknown',
        headcount,
      );
    });
  if (brief.briefLevels.length > 0)
    checks.push(({ level }) => part('level', yes(brief.briefLevels.includes(level)), level));
  if (brief.briefTeams.length > 0) checks.push(({ team }) => part('team', yes(brief.briefTeams.includes(team)), team));
  if (brief.briefTitles.length > 0) checks.push((person) => ({ part: 'title', is: person.title, ...titleFit(person) }));
  return checks;
}

/** How a person fits each part that a brief asks for, in words to be shown. */
export function briefParts(brief: Brief, meaningOf = titleReader()): (person: Known) => BriefPart[] {
  const checks = checksOf(brief, meaningOf);
  return (person) => checks.map((check) => check(person));
}

/**
 * The first part of a brief that a person does not fit; null for none. What was kept by hand is fine; with a title its level
 * and team are.
 */
export function briefFit(
  brief: Brief,
  meaningOf = titleReader(),
): (person: Known, isFine?: (part: BriefPartName) => boolean) => BriefMisfit | null {
  const checks = checksOf(brief, meaningOf);
  return (person, isFine) => {
    for (const check of checks) {
      const { part, fit, is, near, share } = check(person);
      if (fit === 'yes' || fit === 'unknown') continue;
      if (isFine?.(part) || (ofTitle(part) && isFine?.('title'))) continue;
      const why = part === 'title' ? { title: is, near, fit: Math.round(share * 100) / 100 } : { [part]: is };
      return { code: fit === 'near' ? 'title-near-brief' : `${part}-not-in-brief`, look: fit === 'near', why };
    }
    return null;
  };
}
