import { zoneOf, type ExportLayout, type ExportPreview, type Inspection, type Settings } from '@sieve/contract';
import { closeDb, openDb, type Db } from '../db/open';
import { failure, type Failure } from '../errors';
import { exportPreview } from '../exports/preview';
import { inspectFile, type ToInspect } from '../sources/inspect';

/** What can be looked at beside the server's own thread; nothing of it writes. */
export type Look =
  { look: 'file'; what: ToInspect } | { look: 'export'; jobId: number; layout: ExportLayout; now: number };
export type LookTask = { dbFile: string; settings: Settings } & Look;
export type LookEnd = { seen: Inspection | ExportPreview } | { failed: Failure };

export default async function look(task: LookTask): Promise<LookEnd> {
  let db: Db | undefined;
  try {
    db = openDb(task.dbFile);
    return { seen: await see(db, task) };
  } catch (error) {
    return { failed: failure(error) };
  } finally {
    if (db) closeDb(db);
  }
}

const see = (db: Db, task: LookTask) =>
  task.look === 'file'
    ? inspectFile(db, task.what, task.settings.lists)
    : exportPreview(db, task.jobId, task.layout, task.now, zoneOf(task.settings));
