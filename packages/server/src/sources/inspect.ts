import {
  emptyPerson,
  fullName,
  PERSON_FIELDS,
  recogniseColumns,
  tidyRow,
  toRecords,
  uniqueNames,
  type Column,
  type RowIssue,
} from '@sieve/core';
import type { Format, Inspection } from '@sieve/contract';
import type { Db } from '../db/open';
import { holdings } from '../register/held';
import { jobById } from '../jobs/store';
import { mappingOf } from './mappings';
import { AppError } from '../errors';
import { findFormat, tableRows } from './table/read-table';

const SAMPLE = 2000;
const MOST_ISSUES = 500;

/** Reads a whole file without keeping it: what its columns are, what cannot be read, and who is held already. */
export async function inspectFile(
  db: Db,
  file: string,
  name: string,
  said: Partial<Format>,
  mapped: Column[] | null,
  jobId: number | null,
): Promise<Inspection> {
  const format = await findFormat(file, name, said);
  const sheets: string[] = [];
  const out = { rows: 0, blank: 0, unread: 0, noted: 0, issues: [] as RowIssue[] };
  const sample: string[][] = [];
  const held = holdings(db, jobId);
  const counts: Inspection['held'] = { fresh: 0, thisJob: 0, otherJobs: 0, suppressed: 0 };
  let names: string[] | null = format.headerRow < 0 ? [] : null;
  let columns: Column[] = mapped ?? [];
  let remembered = false;
  const phoneCountry = (jobId !== null && jobById(db, jobId)?.steps.tidy.phoneCountry) || 'GB';
  let recognised: Inspection['columns'] = [];
  let seen = 0;
  const waiting: string[][] = [];

  const count = (cells: string[]) => {
    const { person } = tidyRow(cells, idColumns!, phoneCountry);
    counts[held(person)]++;
  };
  let idColumns: Column[] | null = null;
  const decide = () => {
    recognised = recogniseColumns(names!, sample);
    const last = format.headerRow < 0 ? undefined : mappingOf(db, names!);
    remembered = last !== undefined && mapped === null;
    columns = mapped ?? last ?? recognised.map(({ name: column, target }) => ({ name: column, target }));
    idColumns = columns.map((column) =>
      ['email', 'profile'].includes(column.target) ? column : { ...column, target: 'skip' as const },
    );
    waiting.splice(0).forEach(count);
  };

  for await (const rows of tableRows(file, format, (sheet) => sheets.push(sheet))) {
    let body = rows;
    if (seen <= format.headerRow) {
      const headerAt = format.headerRow - seen;
      if (headerAt < rows.length) names = uniqueNames(rows[headerAt]!.cells.map((cell) => cell.trim()));
      body = rows.slice(Math.min(rows.length, headerAt + 1));
    }
    seen += rows.length;
    if (body.length === 0) continue;
    if (names?.length === 0)
      names = uniqueNames(Array<string>(Math.max(...body.slice(0, 50).map((row) => row.cells.length))).fill(''));
    const read = toRecords(body, names!.length);
    out.rows += read.records.length;
    out.blank += read.blank;
    for (const issue of read.issues) {
      if (issue.kept) out.noted++;
      else out.unread++;
      if (out.issues.length < MOST_ISSUES) out.issues.push(issue);
    }
    for (const { cells } of read.records) {
      if (sample.length < SAMPLE) sample.push(cells);
      if (idColumns) count(cells);
      else waiting.push(cells);
    }
    if (!idColumns && sample.length >= SAMPLE) decide();
  }
  if (out.rows + out.unread === 0) throw new AppError('no-rows', { name });
  names ??= [];
  if (!idColumns) decide();
  const first = sample.find((cells) => cells.filter(Boolean).length > 1);
  return {
    name,
    format,
    sheets,
    columns: recognised,
    mapping: columns,
    remembered,
    preview: sample.slice(0, 20),
    tidied: first ? tidiedFirst(first, columns, phoneCountry) : [],
    ...out,
    held: counts,
  };
}

function tidiedFirst(cells: string[], columns: Column[], phoneCountry: string): Inspection['tidied'] {
  const { person, changes } = tidyRow(cells, columns, phoneCountry);
  const raw = changes.find((change) => change.field === 'firstName' && change.was !== change.is)?.was ?? '';
  const name = fullName(person);
  const rows = name === '' ? [] : [{ field: 'fullName', is: name, was: raw }];
  for (const field of PERSON_FIELDS) {
    if (
      ['firstName', 'middleName', 'lastName', 'honorific', 'suffix', 'level', 'team'].includes(field) ||
      person[field] === emptyPerson()[field]
    )
      continue;
    rows.push({ field, is: person[field], was: changes.find((change) => change.field === field)?.was ?? '' });
  }
  return rows;
}
