import { join } from 'node:path';
import { toRecords, type RawRow } from '@sieve/core';
import { eq } from 'drizzle-orm';
import type { Db } from '../db/open';
import { sources } from '../db/schema';
import { tableRows } from './table/read-table';
import type { RunHandler } from '../runs/context';

/** Rows written in one transaction, together with how far the source has been read. */
const CHUNK = 2000;

/** Brings a file in. Stopped anywhere, it goes on behind the last row that was written. */
export const runIntake: RunHandler = async ({ db, input, dataDir, progress, signal }) => {
  const source = db.select().from(sources).where(eq(sources.id, input['sourceId']!)).get()!;
  const total = input['rows'] ?? 0;
  let done = source.rowsRead;
  let seen = 0;
  let waiting: RawRow[] = [];
  const write = chunkWriter(db, source.id, source.columns.length);
  const skip = source.format.headerRow + 1 + done;
  for await (const rows of tableRows(join(dataDir, 'uploads', source.file), source.format)) {
    signal.throwIfAborted();
    waiting.push(...rows.slice(Math.max(0, Math.min(rows.length, skip - seen))));
    seen += rows.length;
    while (waiting.length >= CHUNK) {
      done = write(waiting.slice(0, CHUNK), done, false);
      waiting = waiting.slice(CHUNK);
      progress(done, total);
    }
  }
  done = write(waiting, done, true);
  progress(done, Math.max(total, done));
  return `${done.toLocaleString('en')} rows read`;
};

/** Writes records, issues and the checkpoint together. */
function chunkWriter(db: Db, sourceId: number, width: number) {
  const client = db.$client;
  const record = client.prepare('INSERT INTO records (source_id, line, cells) VALUES (?, ?, ?)');
  const issue = client.prepare(
    'INSERT INTO row_issues (source_id, line, code, kept, field, input) VALUES (?, ?, ?, ?, ?, ?)',
  );
  const checkpoint = client.prepare('UPDATE sources SET rows_read = ?, complete = ? WHERE id = ?');
  return (rows: RawRow[], before: number, complete: boolean): number => {
    const read = toRecords(rows, width);
    const done = before + rows.length;
    client
      .transaction(() => {
        for (const { line, cells } of read.records) record.run(sourceId, line, JSON.stringify(cells));
        for (const i of read.issues) issue.run(sourceId, i.line, i.code, i.kept ? 1 : 0, i.field, i.input);
        checkpoint.run(done, complete ? 1 : 0, sourceId);
      })
      .immediate();
    return done;
  };
}
