import type { Database } from 'better-sqlite3';
import type { Db } from '../db/open';
import { CONTACT_COLUMNS, type ContactColumns, type StoredContact } from './stored-contact';

/** Counted up when what is stored changes: outcomes of another form are dropped at the start and computed again. */
export const OUTCOME_FORM = 1;

/**
 * The tables of one outcome. Each outcome has its own, so that it is written before it is indexed, which costs half as much,
 * and dropped whole. Outcome 0 is empty.
 */
export interface OutcomeTables {
  /** A row a contact, see stored-contact.ts. */
  contacts: string;
  /** The words that the filter looks through. */
  search: string;
  /** Pairs to judge, and for each merged record the pair that brought it in. */
  pairs: string;
}

const tablesOf = (outcome: number): OutcomeTables => ({
  contacts: `contacts_${outcome}`,
  search: `search_${outcome}`,
  pairs: `pairs_${outcome}`,
});

/** The orders of the grid. Each index also holds what a page is chosen by, so a page far down reads no row but its own. */
const ORDERS = ['id', 'lastName', 'title', 'company', 'city', 'email', 'verdict', 'records'] as const;

/** Makes the tables of an outcome, empty; what another database left under its number goes. */
export function createOutcome(client: Database, outcome: number): void {
  dropOutcome(client, outcome);
  const { contacts, search, pairs } = tablesOf(outcome);
  client.exec(
    `CREATE TABLE ${contacts} (${CONTACT_COLUMNS.join(', ').replace(/^id/, 'id INTEGER PRIMARY KEY')});
     CREATE TABLE ${search} (id INTEGER PRIMARY KEY, stop, state, text);
     CREATE TABLE ${pairs} (a, b, chance, merged, PRIMARY KEY (a, b)) WITHOUT ROWID`,
  );
}

/** The statements that index the contacts of an outcome, so that other work can go on between them. */
export function outcomeIndexes(outcome: number): string[] {
  const { contacts } = tablesOf(outcome);
  const columns = ['stop, state', ...ORDERS.map((order) => `${order}${order === 'id' ? '' : ', id'}, stop, state`)];
  return columns.map((list, i) => `CREATE INDEX ${contacts}_${i} ON ${contacts} (${list})`);
}

export function dropOutcome(client: Database, outcome: number): void {
  for (const table of Object.values(tablesOf(outcome))) client.exec(`DROP TABLE IF EXISTS ${table}`);
}

export const hasOutcome = (client: Database, outcome: number): boolean =>
  client.prepare('SELECT 1 FROM sqlite_master WHERE name = ?').get(tablesOf(outcome).pairs) !== undefined;

/** The tables of the outcome that a job shows; empty ones while it has none. */
export function shownOutcome(db: Db, jobId: number): OutcomeTables {
  const outcome = db.$client.prepare('SELECT outcome FROM jobs WHERE id = ?').pluck().get(jobId) as number | undefined;
  return tablesOf(outcome !== undefined && hasOutcome(db.outcomes, outcome) ? outcome : 0);
}

/** The tables of all jobs' outcomes. */
export const shownOutcomes = (db: Db): (OutcomeTables & { jobId: number })[] =>
  (db.$client.prepare('SELECT id FROM jobs').pluck().all() as number[]).map((jobId) => ({
    jobId,
    ...shownOutcome(db, jobId),
  }));

/** Jobs that were sifted and whose outcome is gone, because the file of outcomes was deleted or is of another form. */
export const jobsToSift = (db: Db): number[] =>
  (db.$client.prepare('SELECT id, outcome FROM jobs WHERE outcome > 0').all() as { id: number; outcome: number }[])
    .filter(({ outcome }) => !hasOutcome(db.outcomes, outcome))
    .map(({ id }) => id);

/** A pair of records, how likely they are one person, and whether they were merged. */
export type StoredPair = [a: number, b: number, chance: number, merged: 0 | 1];

/** Writes into the tables of an outcome. */
export function outcomeWriter(client: Database, outcome: number) {
  const { contacts, search, pairs } = tablesOf(outcome);
  const insertContact = client.prepare(`INSERT INTO ${contacts} VALUES (${CONTACT_COLUMNS.map(() => '?').join(', ')})`);
  const insertSearch = client.prepare(`INSERT INTO ${search} VALUES (?, ?, ?, ?)`);
  const insertPair = client.prepare(`INSERT INTO ${pairs} VALUES (?, ?, ?, ?)`);
  const removeContact = client.prepare(`DELETE FROM ${contacts} WHERE id = ?`);
  const removeSearch = client.prepare(`DELETE FROM ${search} WHERE id = ?`);
  const removePair = client.prepare(`DELETE FROM ${pairs} WHERE a = ? AND b = ?`);
  return {
    addContact(contact: StoredContact, columns: ContactColumns): void {
      insertContact.run(columns);
      insertSearch.run(contact.id, contact.stop, contact.state, searchText(contact));
    },
    removeContact(id: number): void {
      removeContact.run(id);
      removeSearch.run(id);
    },
    addPair: (pair: StoredPair) => insertPair.run(...pair),
    removePair: ([a, b]: StoredPair) => removePair.run(a, b),
    /** The contacts as columns, by id. */
    contacts: () => {
      const all = client.prepare(`SELECT * FROM ${contacts}`).raw().all() as ContactColumns[];
      return new Map(all.map((columns) => [columns[0] as number, columns]));
    },
    pairs: () => client.prepare(`SELECT a, b, chance, merged FROM ${pairs}`).raw().all() as StoredPair[],
  };
}

const searchText = ({ person }: StoredContact): string =>
  [
    person.firstName,
    person.middleName,
    person.lastName,
    person.title,
    person.company,
    person.email,
    person.city,
    person.region,
  ]
    .filter(Boolean)
    .join(' ')
    .toLowerCase();
