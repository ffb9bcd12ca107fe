import { join } from 'node:path';
import { stepIn, tidier, tidy, widthOf, type RawRow, type WordLists } from '@sieve/core';
import type { Format, WhoComes } from '@sieve/contract';
import type { Db } from '../db/open';
import { sieveOf } from '../jobs/store';
import type { RunHandler } from '../runs/context';
import { gapIn } from './gap';
import { chunkWriter, sourceById } from './store';
import { rowStanding, staysOut } from './row-standing';
import { tableRows } from './table/read-table';

/** Rows written in one transaction, together with how far the source has been read. */
const CHUNK = 2000;

/** Brings a file in. Stopped anywhere, it goes on behind the last row that was written. */
export const runBringIn: RunHandler<'bring-in'> = async ({ db, input, settings, dataDir, progress, signal }) => {
  const source = sourceById(db, input.sourceId)!;
  // Only files are brought in by a run; what a directory gives comes with its pull.
  const format = source.origin as Format;
  let done = source.rowsRead;
  let seen = 0;
  let waiting: RawRow[] = [];
  const { take = 'all' } = input;
  const standing = take === 'all' ? undefined : outAs(db, source, take, settings.lists);
  const write = chunkWriter(db, source.id, widthOf(source.columns), standing, gapOf(db, source));
  const skip = format.headerRow + 1 + done;
  for await (const rows of tableRows(join(dataDir, 'uploads', source.file), format, source.name)) {
    signal.throwIfAborted();
    waiting.push(...rows.slice(Math.max(0, Math.min(rows.length, skip - seen))));
    seen += rows.length;
    while (waiting.length >= CHUNK) {
      done = write(waiting.slice(0, CHUNK), done);
      waiting = waiting.slice(CHUNK);
      progress(done, input.rows);
    }
  }
  done = write(waiting, done);
  progress(done, Math.max(input.rows, done));
  return { code: 'rows-read', rows: done };
};

/** The gap that a source closes, where it is one of the same job. */
function gapOf(db: Db, { jobId, columns }: NonNullable<ReturnType<typeof sourceById>>) {
  const gap = gapIn(columns);
  return gap && sourceById(db, gap.sourceId)?.jobId === jobId ? gap : null;
}

/** Why a row stays out, as the look before it came in counted it. */
function outAs(
  db: Db,
  { jobId, columns }: NonNullable<ReturnType<typeof sourceById>>,
  take: WhoComes,
  lists: WordLists,
) {
  const { phoneCountry } = stepIn(sieveOf(db, jobId), tidy).options;
  const standing = rowStanding(db, jobId, tidier({ phoneCountry, lists }));
  return (cells: string[]) => {
    const where = standing(cells, columns);
    const code = staysOut(take, where);
    return code && { code, field: where.stands };
  };
}
