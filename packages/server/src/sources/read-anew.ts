import { recogniseColumns, widthOf, type Column, type DecisionBody, type WordLists } from '@sieve/core';
import type { SourceColumns } from '@sieve/contract';
import type { Db } from '../db/open';
import { AppError } from '../errors';
import { gapIn } from './gap';
import { rememberMapping } from './mappings';
import { recordsBehind, SAYS_WHO, sourceById, sourcesIn } from './store';

const SAMPLE = 2000;
const PREVIEWED = 20;

/** The columns of a source as they are read now, with samples of what they hold; undefined when it is not in the job. */
export function columnsOf(db: Db, jobId: number, sourceId: number, lists: WordLists): SourceColumns | undefined {
  const source = sourcesIn(db, jobId).find(({ id }) => id === sourceId);
  if (!source) return undefined;
  const { columns: mapping } = source;
  const names = mapping.slice(0, widthOf(mapping)).map(({ name }) => name);
  const rows = recordsBehind(db, sourceId, SAMPLE)(0).map(([, cells]) => cells);
  return { mapping, columns: recogniseColumns(names, rows, lists.companyWords), preview: rows.slice(0, PREVIEWED) };
}

/**
 * Checks how the columns of a source are to be read from now on, and remembers it for the next table of its shape. Throws where the columns are not
 * those of the source, or would say of nobody who it is.
 */
export function checkColumns(
  db: Db,
  jobId: number,
  { sourceId, columns }: DecisionBody & { kind: 'columns' },
  now: number,
) {
  const source = sourceById(db, sourceId);
  if (source?.jobId !== jobId) throw new AppError('not-found', { what: 'source' });
  const own = columns as Column[];
  const width = widthOf(own);
  const isSame =
    width === widthOf(source.columns) && own.slice(0, width).every(({ name }, i) => name === source.columns[i]!.name);
  if (!isSame) throw new AppError('bad-request', { detail: 'these are not the columns of the source' });
  if (source.about === 'people' && !own.some(({ target }) => SAYS_WHO.includes(target)))
    throw new AppError('nothing-mapped');
  const { origin } = source;
  if ('headerRow' in origin && origin.headerRow >= 0 && gapIn(own) === null) rememberMapping(db, own, now);
}
