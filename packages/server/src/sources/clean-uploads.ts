import { readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { AppContext } from '../app-context';
import { pagesToLookAt } from '../harvests/store';
import { filesInUse } from './store';

const KEPT_MS = 7 * 86_400_000;

/** Removes uploads that nobody brought in for a week. Files of sources stay for ever, also of those that were
 * taken back, and pages of another layout. */
export async function cleanUploads({ db, dataDir, now }: Pick<AppContext, 'db' | 'dataDir' | 'now'>): Promise<number> {
  const dir = join(dataDir, 'uploads');
  const used = new Set([...filesInUse(db), ...pagesToLookAt(db)]);
  let removed = 0;
  for (const name of await readdir(dir).catch(() => [] as string[])) {
    if (used.has(name)) continue;
    const { mtimeMs } = await stat(join(dir, name));
    if (now() - mtimeMs < KEPT_MS) continue;
    await rm(join(dir, name));
    removed++;
  }
  return removed;
}
