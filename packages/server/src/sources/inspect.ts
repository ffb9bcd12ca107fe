import {
  emptyPerson,
  fullName,
  joinedNames,
  PERSON_FIELDS,
  recogniseColumns,
  stepIn,
  tidier,
  tidy,
  toRecords,
  uniqueNames,
  type Column,
  type Recognised,
  type RowIssue,
  type TidyRow,
  type WordLists,
} from '@sieve/core';
import type { Format, Inspection, SaidFormat } from '@sieve/contract';
import type { Db } from '../db/open';
import { AppError } from '../errors';
import { jobRow } from '../jobs/store';
import { isOfGap } from './gap';
import { heldCount } from './held-count';
import { mappingOf } from './mappings';
import { rowStanding } from './row-standing';
import { openTable } from './table/read-table';

const SAMPLE = 2000;
const MOST_ISSUES = 500;
/** A file, what the person said of it, and the job that it is for. */
export interface ToInspect {
  file: string;
  name: string;
  said: SaidFormat;
  /** How its columns are read; null: as they are recognised. */
  mapped: Column[] | null;
  jobId: number | null;
  /** Only as many rows as its columns are recognised by. */
  beginning?: boolean;
}

/** Reads a file without keeping it, the whole of it or its beginning: what its columns are, what cannot be read, and who is held already. */
export async function inspectFile(
  db: Db,
  { file, name, said, mapped, jobId, beginning = false }: ToInspect,
  lists: WordLists,
): Promise<Inspection> {
  const { format, sheets, rows: table } = await openTable(file, name, said);
  const out = { rows: 0, blank: 0, unread: 0, noted: 0, issues: [] as RowIssue[] };
  const sample: string[][] = [];
  const sieve = jobId === null ? [] : (jobRow(db, jobId)?.sieve ?? []);
  const tidied = tidier({ phoneCountry: stepIn(sieve, tidy).options.phoneCountry, lists });
  const standing = rowStanding(db, jobId, tidied);
  const held = heldCount(db, jobId, tidied);
  const count = (cells: string[]) => held.add(standing(cells, columns), cells, columns);
  let names: string[] | null = format.headerRow < 0 ? [] : null;
  let columns: Column[] = mapped ?? [];
  let remembered = false;
  let recognised: Inspection['columns'] = [];
  let seen = 0;
  let decided = false;
  let whole = true;
  const waiting: string[][] = [];

  const decide = () => {
    recognised = recogniseColumns(names!, sample, lists.companyWords).map((column) =>
      isOfGap(column.name) ? { ...column, target: 'skip' as const, sure: 1 } : column,
    );
    const last = format.headerRow < 0 ? undefined : mappingOf(db, names!);
    remembered = last !== undefined && mapped === null;
    columns = mapped ?? last ?? recognised.map(asRecognised);
    decided = true;
    waiting.splice(0).forEach(count);
  };

  for await (const rows of table) {
    let body = rows;
    if (seen <= format.headerRow) {
      const headerAt = format.headerRow - seen;
      if (headerAt < rows.length) names = namesIn(format, rows[headerAt - 1]?.cells, rows[headerAt]!.cells);
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
      if (decided) count(cells);
      else waiting.push(cells);
    }
    if (!decided && sample.length >= SAMPLE) decide();
    if (beginning && decided) {
      whole = false;
      break;
    }
  }
  if (out.rows + out.unread === 0) throw new AppError('no-rows', { name });
  names ??= [];
  if (!decided) decide();
  const first = sample.find((cells) => cells.filter(Boolean).length > 1);
  return {
    name,
    format,
    sheets,
    columns: recognised,
    mapping: columns,
    remembered,
    whole,
    preview: sample.slice(0, 20),
    tidied: first ? tidiedFirst(tidied(first, columns)) : [],
    ...out,
    held: held.counts,
    heldDetails: held.details(),
  };
}

/** A column as it is read unless somebody says otherwise. */
const asRecognised = ({ name, target, type }: Recognised): Column => ({
  name,
  target,
  ...(target === 'own' && type !== 'text' && { type }),
});

function namesIn(format: Format, above: readonly string[] | undefined, cells: readonly string[]): string[] {
  const isJoined = 'joined' in format && format.joined && above !== undefined;
  return uniqueNames(isJoined ? joinedNames(above, cells) : cells.map((cell) => cell.trim()));
}

function tidiedFirst({ person, changes }: TidyRow): Inspection['tidied'] {
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
