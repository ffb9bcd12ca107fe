import { companyKeys, nameKeys, personKeys, type Weights } from '@sieve/core';
import type { Summary } from '@sieve/contract';
import type { Db } from '../db/open';
import { setShown, shownOf } from '../jobs/store';
import { feed, fedVersion, setFed, type Entry } from '../register/register';
import { feedMade, type Addressed } from '../register/made';
import { breathe } from '../threads/breathe';
import { MOST_KEPT_ROWS, type Kept } from './kept';
import {
  createOutcome,
  dropOutcome,
  hasOutcome,
  newOutcome,
  otherOutcomes,
  outcomeIndexes,
  outcomeWriter,
  type StoredCompany,
  type StoredPair,
} from './outcomes';
import {
  CONTACT_COLUMNS,
  knownPerson,
  personOf,
  toColumns,
  type ContactColumns,
  type StoredContact,
} from './stored-contact';

/** An outcome as it is to be shown. */
export interface ToShow {
  contacts: Iterable<StoredContact>;
  companies: readonly StoredCompany[];
  pairs: readonly StoredPair[];
  summary: Summary;
  weights: Weights;
}

interface Details {
  kept: Kept;
  signal: AbortSignal;
  /** Told the share that is written, 0 to 1. */
  onWritten: (share: number) => void;
}

/** So few changed rows are written over the shown outcome at once; more are written beside it, piece by piece. */
const FEW = 4000;
const CHUNK = 10_000;

/**
 * Makes an outcome the one that is shown, and tells the register who is in it. Whoever reads sees all of the old one or all
 * of the new one; the one that was shown before stays until the next, for those who are still reading it.
 */
export async function showOutcome(db: Db, jobId: number, outcome: ToShow, details: Details): Promise<void> {
  const { kept, signal, onWritten } = details;
  const { companies, pairs, summary, weights } = outcome;
  const job = shownOf(db, jobId)!;
  const version = job.version + 1;
  const stateAt = (at: number) => [db.$client.name, jobId, at].join();
  const inRegister = job.version === 0 || fedVersion(db.register, `job ${jobId}`) === job.version;
  dropOthers(db, jobId, job.outcome);

  const hasOld = job.outcome > 0 && hasOutcome(db.outcomes, job.outcome);
  const old = hasOld ? outcomeWriter(db.outcomes, job.outcome) : null;
  const known =
    kept.shown?.key === stateAt(job.version)
      ? kept.shown.contacts
      : (old?.contacts() ?? new Map<number, ContactColumns>());
  kept.shown = null;
  const { contacts, changes } = compared(known, outcome.contacts);
  const oldCompanies = old?.companies() ?? [];

  const show = (shown: number) => {
    setShown(db, jobId, { outcome: shown, version, weights, summary });
    db.register
      .transaction(() => {
        const people = inRegister ? changes : { gone: null, came: [...contacts.values()] };
        feed(
          db.register,
          { job: jobId, about: 'people' },
          people.gone?.map(contactEntry) ?? null,
          people.came.map(contactEntry),
        );
        const gone = inRegister ? oldCompanies.map(companyEntry) : null;
        feed(db.register, { job: jobId, about: 'companies' }, gone, companies.map(companyEntry));
        feedMade(db.register, jobId, addressed(contacts.values()));
        setFed(db.register, `job ${jobId}`, version);
      })
      .immediate();
    if (contacts.size <= MOST_KEPT_ROWS) kept.shown = { key: stateAt(version), contacts };
  };

  if (old) {
    const pairChanges = pairDifferences(old.pairs(), pairs);
    if (changes.gone.length + changes.came.length + pairChanges.gone.length + pairChanges.came.length <= FEW) {
      db.outcomes.transaction(() => {
        for (const columns of changes.gone) old.removeContact(columns[0] as number);
        changes.came.forEach(old.addContact);
        pairChanges.gone.forEach(old.removePair);
        pairChanges.came.forEach(old.addPair);
        old.setCompanies(companies);
      })();
      show(job.outcome);
      return;
    }
  }

  const next = newOutcome(db, jobId);
  createOutcome(db.outcomes, next);
  const writer = outcomeWriter(db.outcomes, next);
  const indexes = outcomeIndexes(next);
  const total = Math.max(1, summary.records + pairs.length) * 2;
  let written = 0;
  const step = async (count: number, work: () => void) => {
    signal.throwIfAborted();
    db.outcomes.transaction(work)();
    onWritten((written += count) / total);
    await breathe();
  };
  const all = [...contacts.values()];
  for (let from = 0; from < all.length; from += CHUNK) {
    const chunk = all.slice(from, from + CHUNK);
    await step(chunk.length, () => chunk.forEach(writer.addContact));
  }
  await step(pairs.length, () => pairs.forEach(writer.addPair));
  await step(0, () => writer.setCompanies(companies));
  for (const index of indexes) await step(total / 2 / indexes.length, () => db.outcomes.exec(index));
  show(next);
}

const EMAIL = CONTACT_COLUMNS.indexOf('email');
const VIA = CONTACT_COLUMNS.indexOf('via');
const VERDICT = CONTACT_COLUMNS.indexOf('verdict');

/** Those whose address came with their records, or was verified. */
function* addressed(contacts: Iterable<ContactColumns>): Generator<Addressed> {
  for (const columns of contacts)
    if (columns[EMAIL] !== '' && (columns[VIA] === 'given' || columns[VERDICT] === 'valid')) yield personOf(columns);
}

interface Changes<T> {
  /** As it was. */
  gone: T[];
  /** As it is. */
  came: T[];
}

/** The contacts to show, and what differs from those that are shown; what is as it was is kept once. */
function compared(shown: ReadonlyMap<number, ContactColumns>, toShow: Iterable<StoredContact>) {
  const contacts = new Map<number, ContactColumns>();
  const changes: Changes<ContactColumns> = { gone: [], came: [] };
  let known = 0;
  for (const contact of toShow) {
    const columns = toColumns(contact);
    const old = shown.get(contact.id);
    if (old) known++;
    if (old && columns.every((value, i) => value === old[i])) {
      contacts.set(contact.id, old);
      continue;
    }
    contacts.set(contact.id, columns);
    changes.came.push(columns);
    if (old) changes.gone.push(old);
  }
  if (known < shown.size) for (const [id, old] of shown) if (!contacts.has(id)) changes.gone.push(old);
  return { contacts, changes };
}

function pairDifferences(shown: readonly StoredPair[], pairs: readonly StoredPair[]): Changes<StoredPair> {
  const left = new Map(shown.map((pair) => [pair.join(), pair]));
  const came = pairs.filter((pair) => !left.delete(pair.join()));
  return { gone: [...left.values()], came };
}

const contactEntry = (columns: ContactColumns): Entry => {
  const person = knownPerson(columns);
  return { item: columns[0] as number, keys: [...personKeys(person), ...nameKeys(person)] };
};
const companyEntry = ({ id, company }: Pick<StoredCompany, 'id' | 'company'>): Entry => ({
  item: id,
  keys: companyKeys(company),
});

/** Drops the outcomes of a job that are no longer shown, those of runs that were stopped included. */
function dropOthers(db: Db, jobId: number, shown: number): void {
  for (const id of otherOutcomes(db, jobId, shown)) dropOutcome(db, id);
}
