import type { ProfilesQuestion } from '../../facts/profiles';
import type { Person } from '../../model/person';
import { fold } from '../../text/fold';
import { formsOf } from '../../words/nicknames';
import type { Looser, ProfileOptions } from './options';

/** Short forms that one question asks for. */
const MOST_FORMS = 8;

/** What a directory is asked for somebody, one after the other, the narrowest first; nothing where the row does not name them. */
export function* questionsFor(person: Person, { looser, language }: ProfileOptions): Generator<ProfilesQuestion> {
  const { firstName, lastName, company, city, country } = person;
  if (lastName === '' || firstName === '') return;
  const may = (way: Looser) => looser.includes(way);
  const first = firstName.replace('.', '');
  const isInitial = first.length === 1;
  const full = [isInitial ? lastName : `${first} ${lastName}`];

  const everywhere: Where = { company: '', city: '', country: '' };
  const inCountry: Where = { ...everywhere, country };
  const place: Where = city === '' ? inCountry : { ...everywhere, city };
  const narrow = [
    ...(company === '' ? [] : [{ ...everywhere, company }]),
    ...(company === '' || may('other-company') ? [place] : []),
  ].filter((where) => where.company !== '' || where.city !== '' || where.country !== '');
  const isNamedAt = (names: readonly string[], where: Where) => ({ names, ...where, language });
  if (narrow[0]) yield isNamedAt(full, narrow[0]);

  const forms = isInitial || !may('short-forms') ? [] : formsOf(fold(first)).slice(0, MOST_FORMS);
  const firsts = forms.length > 1 ? forms : [first];
  const wide = forms.length > 1 ? forms.map((form) => `${form} ${lastName}`) : full;
  for (const where of narrow) {
    if (where !== narrow[0]) yield isNamedAt(full, where);
    if (wide !== full) yield isNamedAt(wide, where);
    // A whole country has too many of one name.
    if (!may('one-name') || where === inCountry) continue;
    if (!isInitial) yield isNamedAt([lastName], where);
    if (!isInitial) yield isNamedAt(firsts, where);
  }
  if (!may('anywhere') || isInitial || !(company === '' || may('other-company'))) return;
  if (country !== '' && !narrow.includes(inCountry)) yield isNamedAt(wide, inCountry);
  yield isNamedAt(wide, everywhere);
}

type Where = Pick<ProfilesQuestion, 'company' | 'city' | 'country'>;
