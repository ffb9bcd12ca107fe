import { companyKeys, NO_LISTS, personKeys, tidier } from '@sieve/core';
import type { DirectoryRow } from '@sieve/contract';
import type { Db } from '../db/open';
import { directoryCells, directoryColumns } from '../sources/directory/directory-source';
import { standingOf, type Entry } from './register';

const tidy = tidier({ phoneCountry: 'GB', lists: NO_LISTS });

/** The keys by which a row of a directory is known: a person's, or its company's. */
export function keysOfRow(row: DirectoryRow): string[] {
  const about = row.id.startsWith('people') ? 'people' : 'companies';
  const { person } = tidy(directoryCells(row), directoryColumns(about));
  return about === 'people' ? personKeys(person) : companyKeys({ ...person, name: person.company });
}

/** Ids of the rows that are held already: in any job, or on a pick list. */
export function heldRows(db: Db, rows: readonly DirectoryRow[]): Set<string> {
  const standing = standingOf(db.register, null);
  return new Set(rows.filter((row) => standing(keysOfRow(row)) !== 'fresh').map(({ id }) => id));
}

/** The rows of a pick list as the register keeps them. */
export const listEntries = (rows: readonly DirectoryRow[]): Entry[] =>
  rows.map((row, item) => ({ item, keys: keysOfRow(row) }));
