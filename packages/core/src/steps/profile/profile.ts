import { atAnyAge, type Facts, type Wanted } from '../../facts/facts';
import type { Listed } from '../../facts/profiles';
import type { WordLists } from '../../model/word-lists';
import type { Column } from '../../model/target';
import type { Person, PersonField } from '../../model/person';
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
      const said = contact.recordIds.map((id) => decisions.profiles.get(id)).findLast((link) => link !== undefined);
      if (said === '') return none('no-profile-found');
      const search = findProfile(person, facts, read, options);
      if (said === undefined && 'ask' in search) return waiting(search);
      const found = 'ask' in search ? [] : search.found;
      const theirs = said === undefined ? found[0] : found.find(({ profile }) => profile.person.profile === said);
      if (said !== undefined && !theirs) {
        contact.person = { ...person, profile: said };
        contact.added = { ...contact.added, profile: { via: 'directory', alternatives: [], sure: 1 } };
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

/** What a contact that lacks it takes from its profile. */
const TAKEN = ['title', 'level', 'team', 'company', 'legalForm', 'domain', 'city', 'region', 'country'] as const;

function take(
  contact: {
    person: Person;
    added: Partial<Record<PersonField, { via: string; alternatives: string[]; sure?: number }>>;
  },
  { profile }: Weighed,
  found: readonly Weighed[],
  sure: number,
) {
  const others = found.map((one) => one.profile.person.profile).filter((link) => link !== profile.person.profile);
  const person = { ...contact.person, profile: profile.person.profile };
  contact.added = { ...contact.added, profile: { via: 'directory', alternatives: others.slice(0, 3), sure } };
  for (const field of TAKEN) {
    if (person[field] !== '' || profile.person[field] === '') continue;
    person[field] = profile.person[field];
    contact.added[field] = { via: 'directory', alternatives: [], sure };
  }
  contact.person = person;
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
    if (!known.fact) return { ask: known.ask, silent: known.silent, stale: known.stale };
    const fresh = facts(ask);
    if (!fresh.fact) stale ??= { ask: fresh.ask, silent: fresh.silent, stale: fresh.stale };
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
export function readingProfiles(lists: Pick<WordLists, 'freeMail'>): (listed: Listed) => Profile {
  const tidied = tidier({ phoneCountry: '', lists });
  return ({ name, title, company, past, city, region, country, website, link }) => ({
    person: tidied([name, title, company, city, region, country, website, link], COLUMNS).person,
    past: past.map((earlier) => parseCompany(earlier).name),
  });
}
