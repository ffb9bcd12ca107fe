import { DIRECTORY } from '../../facts/firms';
import { atAnyAge, wantedOf, type Facts, type Wanted } from '../../facts/facts';
import type { Listed } from '../../facts/profiles';
import type { Sorted } from '../../decisions/sort-decisions';
import type { Contact } from '../../model/contact';
import type { WordLists } from '../../model/word-lists';
import type { Column } from '../../model/target';
import type { Person } from '../../model/person';
import { parseCompany } from '../../tidy/company-name';
import { tidier } from '../../tidy/tidy-row';
import { waiting, type Step } from '../step';
import { profileOptions, type ProfileOptions } from './options';
import { questionsFor } from './questions';
import { weighProfiles, type Profile, type Weighed } from './weigh';

/** Finds the profile of each contact that has none, and takes from it what the contact lacks. */
export const profile: Step<ProfileOptions> = {
  kind: 'profile',
  options: profileOptions,
  about: 'contact',
  after: ['match'],
  optional: true,
  startsOff: true,
  asks: true,
  prepare: (_all, options, { facts, lists, decisions }) => {
    const read = readingProfiles(lists);
    const none = (code: string) => (options.needed ? { state: 'aside' as const, code } : null);
    return (contact) => {
      const { person } = contact;
      if (person.profile !== '') return null;
      const said = saidOf(contact, decisions);
      if (said === '') return none('no-profile-found');
      const search = findProfile(person, facts, read, options);
      if (said === undefined && 'ask' in search) return waiting(search);
      const found = 'ask' in search ? [] : search.found;
      const theirs = said === undefined ? found[0] : found.find(({ profile }) => profile.person.profile === said);
      if (said !== undefined && !theirs) {
        contact.person = { ...person, profile: said };
        contact.added = { ...contact.added, profile: { via: DIRECTORY, alternatives: [], sure: 1 } };
        return null;
      }
      if (!theirs || theirs.chance < options.judgeFrom)
        return none(person.firstName && person.lastName ? 'no-profile-found' : 'no-name-to-find');
      if (said === undefined && theirs.chance < options.takeFrom)
        return { state: 'look', code: 'profile-doubtful', why: { sure: Math.floor(theirs.chance * 100) } };
      take(contact, theirs, found, said === undefined ? theirs.chance : 1);
      return null;
    };
  },
};

/** The link that a person said last of any record of a contact. */
const saidOf = ({ recordIds }: Contact, { profiles }: Sorted): string | undefined =>
  recordIds.flatMap((id) => profiles.get(id) ?? []).sort((a, b) => b.order - a.order)[0]?.link;

/** What a contact that lacks it takes from its profile, those together that only make sense together. */
const TAKEN = [
  ['title', 'level', 'team'],
  ['company', 'legalForm'],
  ['domain'],
  ['city', 'region', 'country'],
] as const;

function take(
  contact: Contact,
  { profile: { person: theirs }, levels }: Weighed,
  found: readonly Weighed[],
  sure: number,
) {
  const others = found.map(({ profile }) => profile.person.profile).filter((link) => link !== theirs.profile);
  const person = { ...contact.person, profile: theirs.profile };
  contact.added = { ...contact.added, profile: { via: DIRECTORY, alternatives: others.slice(0, 3), sure } };
  contact.person = person;
  // Where they work now is nothing for a row of where they worked.
  if (person.company !== '' && (levels.company ?? 0) < 2) return;
  for (const fields of TAKEN) {
    if (fields.some((field) => person[field] !== '' && person[field] !== theirs[field])) continue;
    for (const field of fields) {
      if (person[field] !== '' || theirs[field] === '') continue;
      person[field] = theirs[field];
      contact.added[field] = { via: DIRECTORY, alternatives: [], sure };
    }
  }
}

/** A name stands for so many people until the directory has said how many there are. Common practice, no source. */
const USUAL_NAMESAKES = 20;

/**
 * Asks the directory for one person, the narrowest question first, until a profile is clear; then what was found, likeliest
 * first, or the next question.
 */
export function findProfile(
  person: Person,
  facts: Facts,
  read: (listed: Listed) => Profile,
  options: ProfileOptions,
): { found: Weighed[] } | Wanted {
  const ever = atAnyAge(facts);
  const profiles = new Map<string, Profile>();
  let namesakes = USUAL_NAMESAKES;
  let found: Weighed[] = [];
  let stale: Wanted | null = null;
  for (const question of questionsFor(person, options)) {
    const ask = { kind: 'profiles' as const, ...question };
    const known = ever(ask);
    if (!known.fact) return wantedOf(known);
    const fresh = facts(ask);
    if (!fresh.fact) stale ??= wantedOf(fresh);
    const { total, people } = known.fact.answer;
    for (const one of people) if (one.link !== '') profiles.set(one.link, read(one));
    if (question.company === '' && question.city === '') namesakes = Math.max(total, 1);
    found = weighProfiles(person, [...profiles.values()], namesakes);
    if (found[0] && found[0].chance >= options.takeFrom) return { found };
  }
  // What was found stays found at any age; who was not is asked for again.
  return stale && !(found[0] && found[0].chance >= options.judgeFrom) ? stale : { found };
}

const COLUMNS: readonly Column[] = (
  ['fullName', 'title', 'company', 'city', 'region', 'country', 'website', 'profile'] as const
).map((target) => ({ name: target, target }));

/** Reads profiles as records are read. */
export function readingProfiles(lists: WordLists): (listed: Listed) => Profile {
  const tidied = tidier({ phoneCountry: '', lists });
  return ({ name, title, company, past, city, region, country, website, link }) => ({
    person: tidied([name, title, company, city, region, country, website, link], COLUMNS).person,
    past: past.map((earlier) => parseCompany(earlier).name),
  });
}
