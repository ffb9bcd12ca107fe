import type { Person } from '../../model/person';
import { fold } from '../../text/fold';
import { remembered } from '../../text/remembered';
import { FITS, NEAR, titleFit, type TitleFit } from './fit';
import type { ScreenOptions } from './options';

export type Brief = Pick<ScreenOptions, 'briefTitles' | 'briefLevels' | 'briefTeams' | 'briefPlaces'>;
type Known = Pick<Person, 'title' | 'level' | 'team' | 'city' | 'region' | 'country'>;

/** What of a brief somebody does not fit. `look`: near enough for a person to look at. */
export interface BriefMisfit {
  code: 'title-not-in-brief' | 'title-near-brief' | 'level-not-in-brief' | 'team-not-in-brief' | 'place-not-in-brief';
  look: boolean;
  why: Record<string, string | number>;
}

/**
 * Compares people with all of a brief: titles, levels, teams, places. What is not known of somebody is no misfit; a title that
 * is not known is none of the brief's.
 */
export function briefFit(brief: Brief): (person: Known, titleIsFine?: boolean) => BriefMisfit | null {
  const places = new Set(brief.briefPlaces.map(fold));
  // Titles come again and again.
  const fitOf = remembered((title): TitleFit => titleFit(title, brief.briefTitles));
  const lacks = (wanted: readonly string[], is: string) => wanted.length > 0 && is !== '' && !wanted.includes(is);
  return ({ title, level, team, city, region, country }, titleIsFine = false): BriefMisfit | null => {
    const known = [country, region, city].filter((place) => place !== '');
    if (places.size > 0 && known.length > 0 && !known.some((place) => places.has(fold(place))))
      return { code: 'place-not-in-brief', look: false, why: { place: known.join(', ') } };
    if (titleIsFine) return null;
    if (lacks(brief.briefLevels, level)) return { code: 'level-not-in-brief', look: false, why: { level } };
    if (lacks(brief.briefTeams, team)) return { code: 'team-not-in-brief', look: false, why: { team } };
    if (brief.briefTitles.length === 0) return null;
    const { fit, near } = fitOf(title);
    if (fit >= FITS) return null;
    const why = { title, near, fit: Math.round(fit * 100) / 100 };
    return { code: fit < NEAR ? 'title-not-in-brief' : 'title-near-brief', look: fit >= NEAR, why };
  };
}
