import type { ProfilesQuestion } from '../../facts/profiles';
import type { Person } from '../../model/person';
import { fold } from '../../text/fold';
import { formsOf } from '../../words/nicknames';
import type { Looser, ProfileOptions } from './options';

/** Short forms that one question asks for. */
const MOST_FORMS = 8;

/** What a directory is asked for somebody, the narrowest first; none where the row does not name them. */
export function questionsFor(person: Person, { looser, language }: ProfileOptions): ProfilesQuestion[] {
  const { firstName, lastName, company, city, country } = person;
  if (lastName === '' || firstName === '') return [];
  const may = (way: Looser) => looser.includes(way);
  const first = firstName.replace('.', '');
  const isInitial = first.length === 1;
  const full = isInitial ? lastName : `${first} ${lastName}`;
  const forms = isInitial || !may('short-forms') ? [] : formsOf(fold(first)).slice(0, MOST_FORMS);
  const firsts = forms.length > 1 ? forms : [first];
  const wide = isInitial ? [full] : firsts.map((one) => `${one} ${lastName}`);

  const everywhere: Where = { company: '', city: '', country: '' };
  const inCountry: Where = { ...everywhere, country };
  const place: Where = city === '' ? inCountry : { ...everywhere, city };
  const narrow: Where[] = [];
  if (company !== '') narrow.push({ ...everywhere, company });
  if (company === '' || may('other-company')) narrow.push(place);

  const out: (Where & { names: readonly string[] })[] = [];
  for (const where of narrow.filter(isSomewhere)) {
    out.push({ names: [full], ...where }, { names: wide, ...where });
    // A whole country has too many of one name.
    if (may('one-name') && where !== inCountry)
      out.push({ names: [lastName], ...where }, ...(isInitial ? [] : [{ names: firsts, ...where }]));
  }
  if (may('anywhere') && !isInitial && (company === '' || may('other-company'))) {
    if (isSomewhere(inCountry)) out.push({ names: wide, ...inCountry });
    out.push({ names: wide, ...everywhere });
  }
  const asked = new Map(out.map((question) => [JSON.stringify(question), { ...question, language }]));
  return [...asked.values()];
}

type Where = Pick<ProfilesQuestion, 'company' | 'city' | 'country'>;
const isSomewhere = ({ company, city, country }: Where) => company !== '' || city !== '' || country !== '';
