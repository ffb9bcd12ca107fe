import type { Database } from 'better-sqlite3';
import type { Company } from '@sieve/core';
import { COMPANY_FIELDS } from '@sieve/core';
import type { Db } from '../db/open';
import { allShown, shownOf } from '../jobs/store';
import { fedVersion } from '../register/register';
import { CONTACT_COLUMNS, type ContactColumns } from './stored-contact';

/** Counted up when what is stored changes: outcomes of another form are dropped at the start and computed again. */
export const OUTCOME_FORM = 9;

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
  /** A row a company. */
  companies: string;
}

const tablesOf = (outcome: number): OutcomeTables => ({
  contacts: `contacts_${outcome}`,
  search: `search_${outcome}`,
  pairs: `pairs_${outcome}`,
  companies: `companies_${outcome}`,
});

/** The orders of the grid. Each index also holds what a page is chosen by, so a page far down reads no row but its own. */
const ORDERS = ['id', 'lastName', 'title', 'company', 'city', 'email', 'verdict', 'records'] as const;

/** Makes the tables of an outcome, empty; what another database left under its number goes. */
export function createOutcome(client: Database, outcome: number): void {
  dropTables(client, outcome);
  const { contacts, search, pairs, companies } = tablesOf(outcome);
  client.exec(
    `CREATE TABLE ${contacts} (${CONTACT_COLUMNS.join(', ').replace(/^id/, 'id INTEGER PRIMARY KEY')});
     CREATE TABLE ${search} (id INTEGER PRIMARY KEY, stop, state, text);
     CREATE TABLE ${pairs} (a, b, chance, merged, pattern, PRIMARY KEY (a, b)) WITHOUT ROWID;
     CREATE TABLE ${companies} (id INTEGER PRIMARY KEY, ${COMPANY_FIELDS.join(', ')}, extra, sources, records)`,
  );
}

/** The statements that index the contacts of an outcome, so that other work can go on between them. */
export function outcomeIndexes(outcome: number): string[] {
  const { contacts } = tablesOf(outcome);
  const columns = ['stop, state', ...ORDERS.map((order) => `${order}${order === 'id' ? '' : ', id'}, stop, state`)];
  return columns.map((list, i) => `CREATE INDEX ${contacts}_${i} ON ${contacts} (${list})`);
}

function dropTables(client: Database, outcome: number): void {
  for (const table of Object.values(tablesOf(outcome))) client.exec(`DROP TABLE IF EXISTS ${table}`);
}

/** Numbers an outcome that is going to be written. */
export const newOutcome = (db: Db, jobId: number): number =>
  db.$client.prepare('INSERT INTO outcomes (job_id) VALUES (?)').run(jobId).lastInsertRowid as number;

/** The numbered outcomes of a job besides one. */
export const otherOutcomes = (db: Db, jobId: number, outcome: number): number[] =>
  db.$client.prepare('SELECT id FROM outcomes WHERE job_id = ? AND id <> ?').pluck().all(jobId, outcome) as number[];

export function dropOutcome(db: Db, outcome: number): void {
  dropTables(db.outcomes, outcome);
  db.$client.prepare('DELETE FROM outcomes WHERE id = ?').run(outcome);
}

export const hasOutcome = (client: Database, outcome: number): boolean =>
  client.prepare('SELECT 1 FROM sqlite_master WHERE name = ?').get(tablesOf(outcome).pairs) !== undefined;

/** The tables of the outcome that a job shows; empty ones while it has none. */
export function shownOutcome(db: Db, jobId: number): OutcomeTables {
  const outcome = shownOf(db, jobId)?.outcome;
  return tablesOf(outcome !== undefined && hasOutcome(db.outcomes, outcome) ? outcome : 0);
}

/** The tables of all jobs' outcomes. */
export const shownOutcomes = (db: Db): (OutcomeTables & { jobId: number })[] =>
  allShown(db).map(({ id: jobId, outcome }) => ({
    jobId,
    ...tablesOf(hasOutcome(db.outcomes, outcome) ? outcome : 0),
  }));

/** Jobs that were sifted and whose outcome is gone, or is not in the register: their files were deleted or are of another form. */
export const jobsToSift = (db: Db): number[] =>
  allShown(db)
    .filter(({ id, outcome, version }) => version > 0 && !(hasOutcome(db.outcomes, outcome) && isFed(db, id, version)))
    .map(({ id }) => id);

const isFed = (db: Db, jobId: number, version: number) => fedVersion(db.register, `job ${jobId}`) === version;

/** A company as an outcome keeps it. */
export interface StoredCompany {
  id: number;
  company: Company;
  extra: Record<string, string>;
  /** Names of the sources of its records. */
  sources: string;
  records: number;
}

/** A pair of records, how likely they are one person, and whether they were merged. */
export type StoredPair = [a: number, b: number, chance: number, merged: 0 | 1, pattern: number];

/** Companies of a table of them, those that a condition chooses. */
export const readCompanies = (client: Database, table: string, where: string, ...params: unknown[]): StoredCompany[] =>
  (
    client
      .prepare(`SELECT id, extra, sources, records, ${COMPANY_FIELDS.join(', ')} FROM ${table} ${where}`)
      .raw()
      .all(...params) as [number, string, string, number, ...string[]][]
  ).map(([id, extra, sources, records, ...values]) => ({
    id,
    company: Object.fromEntries(COMPANY_FIELDS.map((field, i) => [field, values[i]])) as Company,
    extra: JSON.parse(extra) as Record<string, string>,
    sources,
    records,
  }));

/** Writes into the tables of an outcome. */
export function outcomeWriter(client: Database, outcome: number) {
  const { contacts, search, pairs, companies } = tablesOf(outcome);
  const insertContact = client.prepare(`INSERT INTO ${contacts} VALUES (${CONTACT_COLUMNS.map(() => '?').join(', ')})`);
  const insertSearch = client.prepare(`INSERT INTO ${search} VALUES (?, ?, ?, ?)`);
  const insertPair = client.prepare(`INSERT INTO ${pairs} VALUES (?, ?, ?, ?, ?)`);
  const removeContact = client.prepare(`DELETE FROM ${contacts} WHERE id = ?`);
  const removeSearch = client.prepare(`DELETE FROM ${search} WHERE id = ?`);
  const removePair = client.prepare(`DELETE FROM ${pairs} WHERE a = ? AND b = ?`);
  const insertCompany = client.prepare(
    `INSERT INTO ${companies} VALUES (${['id', ...COMPANY_FIELDS, 'extra', 'sources', 'records'].map(() => '?').join(', ')})`,
  );
  return {
    /** Puts the companies in the place of those that are there. */
    setCompanies(all: readonly StoredCompany[]): void {
      client.exec(`DELETE FROM ${companies}`);
      for (const { id, company, extra, sources, records } of all)
        insertCompany.run(
          id,
          ...COMPANY_FIELDS.map((field) => company[field]),
          JSON.stringify(extra),
          sources,
          records,
        );
    },
    addContact: (columns: ContactColumns) => {
      insertContact.run(columns);
      insertSearch.run(columns[0], columns[STOP], columns[STATE], searchText(columns));
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
    companies: () => readCompanies(client, companies, ''),
    pairs: () => client.prepare(`SELECT a, b, chance, merged, pattern FROM ${pairs}`).raw().all() as StoredPair[],
  };
}

const at = (column: (typeof CONTACT_COLUMNS)[number]) => CONTACT_COLUMNS.indexOf(column);
const STOP = at('stop');
const STATE = at('state');
const SEARCHED = (['firstName', 'middleName', 'lastName', 'title', 'company', 'email', 'city', 'region'] as const).map(
  at,
);

function searchText(columns: ContactColumns): string {
  let text = '';
  for (const i of SEARCHED) if (columns[i] !== '') text += text === '' ? columns[i] : ` ${columns[i]}`;
  return text.toLowerCase();
}
