import type { ExportLayout, ExportRun } from '@sieve/contract';
import { and, desc, eq } from 'drizzle-orm';
import { inTransaction, insertedId, type Db } from '../db/open';
import { keyHash } from '../register/hash';
import type { Entry } from '../register/register';
import { exportsTable } from './tables';

const MOST_LISTED = 50;
const CHUNK = 2000;

export const addExport = (db: Db, jobId: number, layout: ExportLayout, now: number): number =>
  insertedId(db.insert(exportsTable).values({ jobId, at: now, layout, state: 'writing', files: [] }).run());

export const exportById = (db: Db, id: number) => db.select().from(exportsTable).where(eq(exportsTable.id, id)).get();

export const doneExport = (db: Db, id: number) =>
  db
    .select()
    .from(exportsTable)
    .where(and(eq(exportsTable.id, id), eq(exportsTable.state, 'done')))
    .get();

/** Those that left, the newest first. */
export const exportRuns = (db: Db, jobId: number): ExportRun[] =>
  db
    .select()
    .from(exportsTable)
    .where(and(eq(exportsTable.jobId, jobId), eq(exportsTable.state, 'done')))
    .orderBy(desc(exportsTable.id))
    .limit(MOST_LISTED)
    .all()
    .map(({ id, at, rows, files }) => ({ id, at, rows, files }));

/**
 * Writes who left, by their first record and by what they were known then, and that the export is done.
 *
 * @returns the same keys as the register keeps them
 */
export function finishExport(db: Db, id: number, entries: readonly Entry[], files: ExportRun['files']): bigint[] {
  const left: bigint[] = [];
  const rows = files.reduce((sum, file) => sum + file.rows, 0);
  const add = db.$client.prepare('INSERT INTO export_rows (export_id, record_id, keys) VALUES (?, ?, ?)');
  // What a try that was stopped had written counts for nothing, and others may write between the pieces.
  db.$client.prepare('DELETE FROM export_rows WHERE export_id = ?').run(id);
  for (let from = 0; from < entries.length; from += CHUNK)
    inTransaction(db, () => {
      for (const { item, keys } of entries.slice(from, from + CHUNK)) {
        add.run(id, item, JSON.stringify(keys));
        for (const key of keys) left.push(keyHash(key));
      }
    });
  db.update(exportsTable).set({ state: 'done', rows, files }).where(eq(exportsTable.id, id)).run();
  return left;
}

/** Numbers of the exports that left. */
export const doneExports = (db: Db): number[] =>
  db.$client.prepare(`SELECT id FROM exports WHERE state = 'done'`).pluck().all() as number[];

/** How many exports of other jobs are done. */
export const exportsBesides = (db: Db, jobId: number): number =>
  db.$client.prepare(`SELECT count(*) FROM exports WHERE state = 'done' AND job_id <> ?`).pluck().get(jobId) as number;

/** By what those are known who left with an export, as the register keeps it. */
export const keysThatLeft = (db: Db, id: number): bigint[] =>
  (
    db.$client
      .prepare('SELECT value FROM export_rows, json_each(export_rows.keys) WHERE export_id = ?')
      .pluck()
      .all(id) as string[]
  ).map(keyHash);

/** The job of an export; undefined for one that is gone. */
export const jobOfExport = (db: Db, id: number): number | undefined =>
  db.$client.prepare('SELECT job_id FROM exports WHERE id = ?').pluck().get(id) as number | undefined;

/** When an export was made; null for one that is gone. */
export const exportTime = (db: Db, id: number): number | null =>
  (db.$client.prepare('SELECT at FROM exports WHERE id = ?').pluck().get(id) as number | undefined) ?? null;
