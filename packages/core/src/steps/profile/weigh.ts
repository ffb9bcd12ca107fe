import { companyLevel, firstNameLevel, lastNameLevel, titleLevel, type Level } from '../../match/compare';
import { foldedValue, type MatchField } from '../../match/subject';
import type { Person } from '../../model/person';
import { jaroWinkler } from '../../text/jaro-winkler';
import { SPEAKS, type Speaks } from './options';

/** A profile as tidying reads it. */
export interface Profile {
  person: Person;
  /** Tidied names of earlier companies. */
  past: readonly string[];
}

export interface Weighed {
  profile: Profile;
  /** How likely it is theirs, 0 to 1. */
  chance: number;
  /** What speaks for it and against; a field that one of both lacks is not there. */
  levels: Partial<Record<Speaks, Level>>;
}

/**
 * How much more often each level is seen between a row and the profile of the same person than with that of somebody of about
 * the same name: levels 1 (different) to 4 (the same). Common practice, no source; the bench measures what they bring.
 */
const FACTORS: Record<Speaks, readonly [number, number, number, number]> = {
  firstName: [0.002, 0.06, 0.5, 1],
  lastName: [0.0005, 0.03, 0.15, 1],
  company: [0.1, 10, 60, 400],
  past: [1, 5, 30, 120],
  city: [0.2, 1, 8, 14],
  country: [0.05, 0.05, 0.05, 2.2],
  title: [0.4, 1.3, 4, 8],
};

/** The share of people in lists whom a directory has. Common practice, no source. */
const LISTED = 0.85;

/**
 * Weighs the profiles that a directory gave for one person: each by the levels of its fields (Fellegi and Sunter 1969), all of
 * them against each other and against none, since a person has one profile at most (Jaro 1989, one-to-one assignment).
 *
 * @param namesakes how many the directory has of that name; each is as likely before anything else is looked at
 * @returns the likeliest first
 */
export function weighProfiles(row: Person, profiles: readonly Profile[], namesakes: number): Weighed[] {
  const levelsOf = comparing(row);
  const each = LISTED / Math.max(1, namesakes, profiles.length);
  const weighed = profiles.map((profile) => {
    const levels = levelsOf(profile);
    let odds = each;
    for (const field of SPEAKS) {
      const level = levels[field];
      if (level) odds *= FACTORS[field][level - 1]!;
    }
    return { profile, levels, odds };
  });
  const all = weighed.reduce((sum, { odds }) => sum + odds, 1 - LISTED);
  return weighed
    .map(({ profile, levels, odds }) => ({ profile, levels, chance: odds / all }))
    .sort((a, b) => b.chance - a.chance);
}

function comparing(row: Person): (profile: Profile) => Weighed['levels'] {
  const of = {} as Record<MatchField, string>;
  for (const field of ['firstName', 'lastName', 'company', 'city', 'title'] as const)
    of[field] = foldedValue(field, row[field]);
  const level = (field: MatchField, value: string, near: (a: string, b: string) => Level): Level => {
    const [a, b] = [of[field], foldedValue(field, value)];
    return a === '' || b === '' ? 0 : a === b ? 4 : near(a, b);
  };
  return ({ person, past }) => {
    const levels: Record<Speaks, Level> = {
      firstName: level('firstName', person.firstName, firstNameLevel),
      lastName: level('lastName', person.lastName, lastNameLevel),
      company: row.domain !== '' && row.domain === person.domain ? 4 : level('company', person.company, companyLevel),
      past: 0,
      city: level('city', person.city, (a, b) => (jaroWinkler(a, b, 0.92) >= 0.92 ? 3 : 1)),
      country: 0,
      title: level('title', person.title, titleLevel),
    };
    if (levels.company === 1) {
      const before = past.map((company) => level('company', company, companyLevel));
      const best = Math.max(0, ...before) as Level;
      // Who moved has the title and the town of their company now.
      if (best > 1) {
        Object.assign(levels, { past: best, company: 0 });
        for (const field of ['city', 'title'] as const) if (levels[field] === 1) levels[field] = 0;
      }
    }
    if (levels.city < 2 && levels.past === 0 && row.country !== '' && person.country !== '')
      levels.country = row.country === person.country ? 4 : 1;
    const said = Object.entries(levels).filter(([, one]) => one > 0);
    return Object.fromEntries(said);
  };
}
