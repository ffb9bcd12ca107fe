import { atAnyAge, firstWanted, wantedOf, type Facts, type Wanted } from '../../facts/facts';
import type { Owned } from '../../facts/owner';
import type { Contact } from '../../model/contact';
import type { PersonField } from '../../model/person';
import type { Column } from '../../model/target';
import { tidier } from '../../tidy/tidy-row';
import { waiting, type Step } from '../step';
import { fitsName } from './fits-name';
import { ownerOptions, type OwnerOptions } from './options';

/** Asks finders who has an address that came without a name. Whom nobody knows passes as they came. */
export const owner: Step<OwnerOptions> = {
  kind: 'owner',
  options: ownerOptions,
  about: 'contact',
  after: ['match'],
  optional: true,
  startsOff: true,
  asks: true,
  prepare: (_all, options, { facts, lists, phoneCountry }) => {
    const tidy = tidier({ lists, phoneCountry });
    return (contact, kept) => {
      const { email, firstName, lastName } = contact.person;
      if (email === '' || firstName !== '' || lastName !== '') return null;
      const search = findOwner(email, facts, options);
      if ('ask' in search) return waiting(search);
      const { best } = search;
      if (!best) return null;
      if (!kept && best.sure < options.takeFrom)
        return {
          state: 'look',
          code: 'owner-doubtful',
          why: { name: `${best.person.firstName} ${best.person.lastName}`, sure: Math.floor(best.sure * 100) },
        };
      take(contact, best, tidy);
      return null;
    };
  },
};

interface Best {
  person: Owned;
  finder: string;
  sure: number;
}

/** So many answers are right, and so often a right or a wrong one could have been made into the address. Common practice, no source. */
const RIGHT = 0.9;
const FITS = { right: 0.95, wrong: 0.05 };

/** How likely the address is that of a person whom a finder named. */
export function sureOf(email: string, person: Owned): number {
  const fits = fitsName(email, person);
  const right = RIGHT * (fits ? FITS.right : 1 - FITS.right);
  return right / (right + (1 - RIGHT) * (fits ? FITS.wrong : 1 - FITS.wrong));
}

/** The first who is sure enough, else the likeliest of all that finders named; or the next question. */
function findOwner(email: string, fresh: Facts, { finders, takeFrom }: OwnerOptions): { best: Best | null } | Wanted {
  const facts = atAnyAge(fresh);
  const questions = finders.map((finder) => ({ kind: 'owner', finder, email }) as const);
  let best: Best | null = null;
  for (const question of questions) {
    const known = facts(question);
    if (!known.fact) return wantedOf(known);
    const { person } = known.fact.answer;
    if (!person || person.lastName === '') continue;
    const found = { person, finder: question.finder, sure: sureOf(email, person) };
    if (!best || found.sure > best.sure) best = found;
    if (best.sure >= takeFrom) return { best };
  }
  return (best ? null : firstWanted(questions.map((question) => fresh(question)))) ?? { best };
}

const COLUMNS: Column[] = (['firstName', 'lastName', 'title', 'company'] as const).map((target) => ({
  name: target,
  target,
}));
/** What goes together where the contact has none of it. */
const TAKEN: readonly (readonly PersonField[])[] = [
  ['firstName', 'middleName', 'lastName', 'suffix'],
  ['title', 'level', 'team'],
  ['company', 'legalForm'],
];

function take(contact: Contact, { person: said, finder, sure }: Best, tidy: ReturnType<typeof tidier>) {
  const { person: theirs } = tidy([said.firstName, said.lastName, said.title, said.company], COLUMNS);
  contact.person = { ...contact.person };
  contact.added = { ...contact.added };
  for (const fields of TAKEN) {
    if (fields.some((field) => contact.person[field] !== '')) continue;
    for (const field of fields) {
      if (theirs[field] === '') continue;
      contact.person[field] = theirs[field];
      contact.added[field] = { via: finder, alternatives: [], sure };
    }
  }
}
