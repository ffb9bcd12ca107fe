import type { Column } from '@sieve/core';
import type { DirectoryRow } from '@sieve/contract';

export const DIRECTORY_COLUMNS: Column[] = [
  { name: 'Name', target: 'fullName' },
  { name: 'Title', target: 'title' },
  { name: 'Company', target: 'company' },
  { name: 'Website', target: 'website' },
  { name: 'City', target: 'city' },
  { name: 'Region', target: 'region' },
  { name: 'Country', target: 'country' },
  { name: 'Profile link', target: 'profile' },
  { name: 'Sector', target: 'own' },
  { name: 'Headcount', target: 'own' },
  { name: 'Years in role', target: 'own' },
  { name: 'Directory number', target: 'own' },
];

/** A row as the cells of a record, with the cells kept from a sheet behind. */
export const directoryCells = (
  { id, name, title, company, link, found }: DirectoryRow,
  kept: Record<string, string> = {},
): string[] => [
  id.startsWith('people') ? name : '',
  title,
  company,
  text(found['website']),
  text(found['city']),
  text(found['region']),
  text(found['country']),
  id.startsWith('people') ? link : '',
  text(found['sector']),
  text(found['headcount'] ?? found['employees']),
  text(found['years']),
  id,
  ...Object.values(kept),
];
const text = (value: DirectoryRow['found'][string]): string =>
  value === null || value === undefined ? '' : String(value);

/** A source whose records come from a directory, not from a file. */
export const directorySource = (jobId: number, name: string, rowsRead = 0, kept: Record<string, string> = {}) => ({
  jobId,
  name,
  format: { kind: 'directory' as const, encoding: '', delimiter: '', sheet: '', headerRow: -1 },
  columns: [...DIRECTORY_COLUMNS, ...Object.keys(kept).map((own): Column => ({ name: own, target: 'own' }))],
  file: '',
  rowsRead,
  complete: true,
});
