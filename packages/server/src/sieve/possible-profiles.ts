import { ANY_AGE, findProfile, fullName, profile, readingProfiles, stepIn, type WordLists } from '@sieve/core';
import type { PossibleProfile } from '@sieve/contract';
import type { Db } from '../db/open';
import { sieveOf } from '../jobs/store';
import { factsAt } from '../outside/facts';
import type { StoredContact } from './stored-contact';

const MOST = 9;
/** Less likely ones say nothing. */
const LEAST = 0.005;

/** The profiles that answers of the directory offer for a contact that has none, weighed as the step weighs them. */
export function possibleProfiles(
  db: Db,
  jobId: number,
  { person }: Pick<StoredContact, 'person'>,
  lists: WordLists,
): PossibleProfile[] {
  const { on, options } = stepIn(sieveOf(db, jobId), profile);
  if (!on || person.profile !== '') return [];
  const search = findProfile(person, factsAt(db, 0, ANY_AGE), readingProfiles(lists), options);
  if ('ask' in search) return [];
  return search.found
    .filter(({ chance }) => chance >= LEAST)
    .slice(0, MOST)
    .map(({ profile: { person: one, past }, chance, levels }) => ({
      link: one.profile,
      name: fullName(one),
      title: one.title,
      company: one.company,
      past: [...past],
      place: [one.city, one.region, one.country].filter(Boolean).join(', '),
      chance,
      speaks: Object.entries(levels).map(([field, level]) => ({ field, level }) as PossibleProfile['speaks'][number]),
    }));
}
