import type { Person } from '../../model/person';
import { fold } from '../../text/fold';
import { headcountRange } from '../../text/headcount';
import { remembered } from '../../text/remembered';
import { FITS, NEAR, titleFit, type TitleFit } from './fit';
import type { ScreenOptions } from './options';
import { wordFinder } from './words';

export type Brief = Pick<ScreenOptions, Extract<keyof ScreenOptions, `brief${string}`>>;
type Known = Pick<Person, 'title' | 'level' | 'team' | 'city' | 'region' | 'country' | 'sector' | 'headcount'>;

/** What of a brief somebody does not fit. `look`: near enough for a person to look at. */
export interface BriefMisfit {
  code: `${'title' | 'level' | 'team' | 'place' | 'sector' | 'headcount'}-not-in-brief` | 'title-near-brief';
  look: boolean;
  why: Record<string, string | number>;
}

/**
 * Compares people with all of a brief: places, sectors, headcount, levels, teams, titles. What is not known of somebody is no
 * misfit; a title that is not known is none of the brief's. A headcount given as a band fits where it may lie within the limits.
 */
export function briefFit(brief: Brief): (person: Known, titleIsFine?: boolean) => BriefMisfit | null {
  const places = new Set(brief.briefPlaces.map(fold));
  const sectorWords = remembered(wordFinder(brief.briefSectors));
  const range = remembered(headcountRange);
  const { briefHeadcountFrom: from, briefHeadcountTo: to } = brief;
  // Titles come again and again.
  const fitOf = remembered((title): TitleFit => titleFit(title, brief.briefTitles));
  const lacks = (wanted: readonly string[], is: string) => wanted.length > 0 && is !== '' && !wanted.includes(is);
  return ({ title, level, team, city, region, country, sector, headcount }, titleIsFine = false) => {
    const aside = (code: BriefMisfit['code'], why: BriefMisfit['why']): BriefMisfit => ({ code, look: false, why });
    const known = [country, region, city].filter((place) => place !== '');
    if (places.size > 0 && known.length > 0 && !known.some((place) => places.has(fold(place))))
      return aside('place-not-in-brief', { place: known.join(', ') });
    if (brief.briefSectors.length > 0 && sector !== '' && sectorWords(sector) === '')
      return aside('sector-not-in-brief', { sector });
    const people = from > 0 || to > 0 ? range(headcount) : null;
    if (people && (people.to < from || (to > 0 && people.from > to)))
      return aside('headcount-not-in-brief', { headcount });
    if (titleIsFine) return null;
    if (lacks(brief.briefLevels, level)) return aside('level-not-in-brief', { level });
    if (lacks(brief.briefTeams, team)) return aside('team-not-in-brief', { team });
    if (brief.briefTitles.length === 0) return null;
    const { fit, near } = fitOf(title);
    if (fit >= FITS) return null;
    const why = { title, near, fit: Math.round(fit * 100) / 100 };
    return { code: fit < NEAR ? 'title-not-in-brief' : 'title-near-brief', look: fit >= NEAR, why };
  };
}
