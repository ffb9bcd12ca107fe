import type { Column, Subject } from '@sieve/core';
import type { DirectoryRow, SourceAbout } from '@sieve/contract';

const COLUMNS: Record<SourceAbout, Column[]> = {
  people: [
    { name: 'Name', target: 'fullName' },
    { name: 'Title', target: 'title' },
    { name: 'Company', target: 'company' },
    { name: 'Website', target: 'website' },
    { name: 'City', target: 'city' },
    { name: 'Region', target: 'region' },
    { name: 'Country', target: 'country' },
    { name: 'Profile link', target: 'profile' },
    { name: 'Sector', target: 'sector' },
    { name: 'Headcount', target: 'headcount' },
    { name: 'Years in role', target: 'own' },
    { name: 'Directory number', target: 'own' },
  ],
  companies: [
    { name: 'Company', target: 'company' },
    { name: 'Website', target: 'website' },
    { name: 'Link', target: 'profile' },
    { name: 'City', target: 'city' },
    { name: 'Region', target: 'region' },
    { name: 'Country', target: 'country' },
    { name: 'Sector', target: 'sector' },
    { name: 'Headcount', target: 'headcount' },
    { name: 'Role', target: 'own' },
    { name: 'Directory number', target: 'own' },
  ],
};

/** Postings and companies are both about companies. */
export const aboutOf = (subject: Subject): SourceAbout => (subject === 'people' ? 'people' : 'companies');

/** @param kept cells of a sheet that go with each row, by name */
export const directoryColumns = (about: SourceAbout, kept: Record<string, string> = {}): Column[] => [
  ...COLUMNS[about],
  ...Object.keys(kept).map((name): Column => ({ name, target: 'own' })),
];

/** A row as the cells of a record, with the cells kept from a sheet behind. */
export function directoryCells(row: DirectoryRow, kept: Record<string, string> = {}): string[] {
  const { id, name, title, company, link, found } = row;
  const place = [text(found['city']), text(found['region']), text(found['country'])];
  const sector = text(found['sector']);
  const headcount = text(found['headcount'] ?? found['employees']);
  const cells = id.startsWith('people')
    ? [name, title, company, text(found['website']), ...place, link, sector, headcount, text(found['years']), id]
    : [company || name, text(found['website']), link, ...place, sector, headcount, title, id];
  return [...cells, ...Object.values(kept)];
}

const text = (value: DirectoryRow['found'][string]): string =>
  value === null || value === undefined ? '' : String(value);
