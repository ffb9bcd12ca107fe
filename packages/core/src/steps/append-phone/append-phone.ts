import type { Contact } from '../../model/contact';
import type { KnownPhone } from '../../model/phone';
import { callSuppressor } from '../../suppression/suppression';
import { waiting, type Step } from '../step';
import { findPhone, type FoundPhone } from './find-phone';
import { firmOf, linesOf, phoneKind, type Lines } from './lines';
import { appendPhoneOptions, type AppendPhoneOptions } from './options';

/** How likely a number that came with somebody reaches them, and one that people of another firm carry too. Common practice, no source. */
const GIVEN = 0.9;
const DOUBTED = 0.5;
const NONE: KnownPhone = { kind: 'none', pass: null, listedAs: '', sure: 0, doubted: false, others: [] };

/** Adds the phone that a contact lacks, and says of every phone what it reaches. */
export const appendPhone: Step<AppendPhoneOptions> = {
  kind: 'append-phone',
  options: appendPhoneOptions,
  about: 'contact',
  after: ['match'],
  optional: true,
  startsOff: true,
  asks: true,
  prepare: (all, options, { facts, suppression, phoneCountry }) => {
    const env = { facts, suppression, phoneCountry };
    const notCalled = callSuppressor(suppression);
    const search = (contact: Contact) =>
      contact.notCalled || notCalled(contact.person)
        ? ({ none: 'not-to-be-called' } as const)
        : findPhone(contact, options, env);
    const lines = linesOf(carriedBy(all, search));
    return (contact) => {
      const { person } = contact;
      if (person.phone !== '') {
        tell(contact, { number: person.phone, says: null, pass: null, listedAs: '', sure: GIVEN, others: [] }, lines);
        return null;
      }
      const found = search(contact);
      if ('ask' in found) return waiting(found);
      if ('none' in found) {
        if (found.none === 'no-phone-found') contact.phone = NONE;
        return options.needed ? { state: 'aside', code: found.none } : null;
      }
      contact.person = { ...person, phone: found.number };
      contact.added = { ...contact.added, phone: { via: found.via, alternatives: [] } };
      tell(contact, found, lines);
      return null;
    };
  },
};

/** The numbers of all, those that came with them and those that are found of whoever came this far. */
function* carriedBy(
  all: readonly Contact[],
  search: (contact: Contact) => ReturnType<typeof findPhone> | { none: string },
) {
  for (const contact of all) {
    const firm = firmOf(contact);
    if (contact.person.phone !== '') yield { number: contact.person.phone, firm };
    else if (contact.fate.state === 'pass') {
      const found = search(contact);
      if ('number' in found) yield { number: found.number, firm };
    }
  }
}

type Told = Omit<FoundPhone, 'via' | 'pass'> & Pick<KnownPhone, 'pass'>;

function tell(contact: Contact, { number, says, sure, pass, listedAs, others }: Told, lines: Lines) {
  const firm = firmOf(contact);
  const doubted = lines.elsewhere(number, firm);
  const kind = phoneKind(number, says, lines.inFirm(number, firm));
  contact.phone = { kind, pass, listedAs, sure: doubted ? Math.min(sure, DOUBTED) : sure, doubted, others };
}
