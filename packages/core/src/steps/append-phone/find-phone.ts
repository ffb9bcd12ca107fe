import type { ListedPhone, PhoneQuestion } from '../../facts/phones';
import { atAnyAge, firstWanted, wantedOf, type Known, type Wanted } from '../../facts/facts';
import type { Contact } from '../../model/contact';
import { addressLine } from '../../model/person';
import { PHONE_PASSES, type PhonePass } from '../../model/phone';
import { fold } from '../../text/fold';
import { parsePhone } from '../../tidy/phone';
import { areForms } from '../../words/nicknames';
import type { Env } from '../step';
import { MOST_EARLIER, type AppendPhoneOptions } from './options';

/** A number that was found, with what the service says of it and how likely it reaches the person, 0 to 1. */
export interface FoundPhone {
  number: string;
  says: ListedPhone['kind'];
  pass: PhonePass;
  via: string;
  listedAs: string;
  sure: number;
  /** Further numbers of the same answer, the likeliest first. */
  others: string[];
}

type Asked = Pick<Contact, 'person' | 'earlierAddresses'>;

/** How likely a number reaches somebody, by the name it is listed under. Common practice, no source. */
const SURE = { same: 0.95, form: 0.85, initial: 0.75, household: 0.5 };
/** The part of it that is left at an address where they lived before. Common practice, no source. */
const AT_EARLIER = 0.6;

/**
 * Looks for the phone of one person: pass by pass, and in each pass service by service, until one lists a number that is valid by its numbering
 * plan. A number that was found stays found at any age; who was not found at all is asked about again once that is long ago.
 *
 * @returns the phone, that there is none, or the next question
 */
export function findPhone(
  contact: Asked,
  { passes, services }: AppendPhoneOptions,
  { facts: fresh, suppression, phoneCountry }: Pick<Env, 'facts' | 'suppression' | 'phoneCountry'>,
): FoundPhone | { none: 'no-name-or-address' | 'no-phone-found' | 'not-to-be-called' } | Wanted {
  const { person } = contact;
  const country = /^[A-Z]{2}$/.test(person.country) ? person.country : phoneCountry;
  const facts = atAnyAge(fresh);
  const asked: Known[] = [];
  for (const pass of PHONE_PASSES.filter((one) => passes.includes(one)))
    for (const question of questionsOf(contact, pass))
      for (const service of services) {
        const known = facts({ kind: 'phones', service, ...question });
        if (!known.fact) return wantedOf(known);
        asked.push(fresh({ kind: 'phones', service, ...question }));
        const usable = known.fact.answer.phones
          .flatMap((listed) => {
            const { e164 } = parsePhone(listed.number, country);
            return e164 === '' ? [] : [{ listed, e164, sure: sureness(person.firstName, listed, pass) }];
          })
          .sort((a, b) => b.sure - a.sure);
        // Whose number is on the list is not called at another one.
        if (usable.some(({ e164 }) => suppression.has(`phone:${e164}`))) return { none: 'not-to-be-called' };
        const [best, ...others] = usable;
        if (!best) continue;
        const { firstName, lastName, kind } = best.listed;
        return {
          number: best.e164,
          says: kind,
          pass,
          via: service,
          listedAs: [firstName, lastName].filter(Boolean).join(' '),
          sure: best.sure,
          others: [...new Set(others.map(({ e164 }) => e164))].filter((number) => number !== best.e164),
        };
      }
  return firstWanted(asked) ?? { none: asked.length === 0 ? 'no-name-or-address' : 'no-phone-found' };
}

/** What a pass asks of every service; nothing where a name or an address is lacking. */
function questionsOf({ person, earlierAddresses }: Asked, pass: PhonePass): Omit<PhoneQuestion, 'service'>[] {
  const { firstName, lastName } = person;
  if (lastName === '') return [];
  if (pass === 'earlier')
    return earlierAddresses.slice(0, MOST_EARLIER).map((address) => ({ firstName: '', lastName, address }));
  const address = addressLine(person);
  if (address === '' || (pass === 'full' && firstName === '')) return [];
  return [{ firstName: pass === 'full' ? firstName : '', lastName, address }];
}

function sureness(firstName: string, listed: ListedPhone, pass: PhonePass): number {
  const [ours, theirs] = [fold(firstName), fold(listed.firstName)];
  const by =
    ours !== '' && ours === theirs
      ? SURE.same
      : areForms(ours, theirs)
        ? SURE.form
        : theirs.length === 1 && ours.startsWith(theirs)
          ? SURE.initial
          : SURE.household;
  return pass === 'earlier' ? by * AT_EARLIER : by;
}
