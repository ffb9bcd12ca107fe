import type { Db } from '../db/open';
import { doneExports, keysThatLeft } from '../exports/store';
import { listsToFeed } from '../picks/store';
import { feed, fedVersion, leave, setFed } from './register';
import { listEntries } from './held-rows';

/**
 * Brings the register up to what left and what was picked, where a crash or a deleted file left it behind. Contacts of jobs
 * are fed by the sifting that the queue starts for jobs whose outcome it does not hold.
 */
export function remakeRegister(db: Db): void {
  for (const id of doneExports(db))
    if (fedVersion(db.register, `export ${id}`) === null) leave(db.register, id, keysThatLeft(db, id));
  for (const { id, version, rows } of listsToFeed(db)) {
    if (fedVersion(db.register, `list ${id}`) === version) continue;
    feed(db.register, { list: id }, null, listEntries(rows()));
    setFed(db.register, `list ${id}`, version);
  }
}
