import {
  canonicalLink,
  emptyPerson,
  fullName,
  personKeys,
  registrableDomain,
  stepIn,
  tidier,
  tidy,
  type Column,
  type WordLists,
} from '@sieve/core';
import { CONTACT_PARTS } from '@sieve/core/model/contact-parts';
import { isProfile } from '@sieve/core/intake/value-kinds';
import type { HeldAlready, HeldContact, LookedUp, TypedContact } from '@sieve/contract';
import type { Db } from '../db/open';
import { exportTime } from '../exports/store';
import { jobRow } from '../jobs/store';
import { contactsKnownBy, lastExportOf } from '../register/register';
import { suppressedAt } from '../register/suppressions';
import { shownOutcomes } from './outcomes';
import { stepIds } from './rows';
import { fromColumns, type ContactColumns } from './stored-contact';

/** The most people of a firm that a job gives to a look at it. */
const MOST_OF_A_FIRM = 200;

/** Contacts of all jobs by their numbers, or by the domain of their firm, with where they stand and when they left. */
export function heldContacts(
  db: Db,
  of: { known: readonly { jobId: number; contact: number }[] } | { domain: string },
): HeldContact[] {
  const out: HeldContact[] = [];
  const exportOf = lastExportOf(db.register);
  for (const { jobId, contacts } of shownOutcomes(db)) {
    const ids = 'known' in of ? of.known.filter((one) => one.jobId === jobId).map(({ contact }) => contact) : [];
    if ('known' in of && ids.length === 0) continue;
    const steps = stepIds(db, jobId);
    const rows = db.outcomes
      .prepare(
        `SELECT * FROM ${contacts} WHERE ${'known' in of ? 'id IN (SELECT value FROM json_each(?))' : 'domain = ?'} LIMIT ${MOST_OF_A_FIRM}`,
      )
      .raw()
      .all('known' in of ? JSON.stringify(ids) : of.domain) as ContactColumns[];
    for (const columns of rows) {
      const { id: contact, person, stop, state } = fromColumns(columns);
      const exported = exportOf(personKeys(person));
      out.push({
        jobId,
        contact,
        name: fullName(person),
        title: person.title,
        company: person.company,
        email: person.email,
        step: steps[stop] ?? steps.at(-1)!,
        fate: state,
        exportedAt: exported === 0 ? null : exportTime(db, exported),
      });
    }
  }
  return out;
}

/** The columns and cells of a contact that is typed. */
export function typedCells(typed: TypedContact): { columns: Column[]; cells: string[] } {
  const said = CONTACT_PARTS.filter((part) => typed[part]?.trim());
  return {
    columns: said.map((part) => ({ name: part, target: part })),
    cells: said.map((part) => typed[part]!.trim()),
  };
}

/** Whether somebody who is typed is held in any job, left before, or must not be contacted. */
export function heldAlready(db: Db, jobId: number | null, typed: TypedContact, lists: WordLists): HeldAlready {
  const { columns, cells } = typedCells(typed);
  const sieve = jobId === null ? [] : (jobRow(db, jobId)?.sieve ?? []);
  const { person } = tidier({ phoneCountry: stepIn(sieve, tidy).options.phoneCountry, lists })(cells, columns);
  const keys = personKeys(person);
  const exported = lastExportOf(db.register)(keys);
  return {
    contacts: heldContacts(db, { known: contactsKnownBy(db.register, keys) }),
    exportedAt: exported === 0 ? null : exportTime(db, exported),
    suppressed: suppressedAt(db, Date.now())(person) !== undefined,
  };
}

/** What is held of a firm by its website, or of a person by their profile link; null for what is neither. */
export function lookUp(db: Db, q: string): LookedUp | null {
  const link = canonicalLink(q);
  if (link === '') return null;
  const suppressed = suppressedAt(db, Date.now());
  if (isProfile(link)) {
    const contacts = heldContacts(db, { known: contactsKnownBy(db.register, [`profile:${link}`]) });
    const isNamed = [
      { ...emptyPerson(), profile: link },
      ...contacts.map(({ email }) => ({ ...emptyPerson(), email })),
    ];
    return {
      about: 'person',
      key: link,
      company: contacts[0]?.company ?? '',
      contacts,
      suppressed: isNamed.some((one) => suppressed(one) !== undefined),
    };
  }
  const domain = registrableDomain(link.split('/')[0]!);
  if (domain === '') return null;
  const contacts = heldContacts(db, { domain });
  const company = contacts[0]?.company ?? '';
  const isNamed = suppressed({ ...emptyPerson(), domain, company }) !== undefined;
  return { about: 'firm', key: domain, company, contacts, suppressed: isNamed };
}
