import { existsSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { toAppError } from '../errors';

/** Opening the three databases makes the indexes of their logs, 32 kB each, and a little more. */
const RESERVE_BYTES = 512 * 1024;

/**
 * Opens what lies in the data folder. Some room on the disk is kept in a file for it, so that a full disk does not keep the server
 * from starting and showing what it has. @param open throws when there is no room
 */
export function openWithReserve<T>(dataDir: string, open: () => T): T {
  const reserve = join(dataDir, 'reserve');
  try {
    return open();
  } catch (error) {
    if (toAppError(error).code !== 'disk-full') throw error;
    rmSync(reserve, { force: true });
    return open();
  } finally {
    keepRoom(reserve);
  }
}

function keepRoom(reserve: string) {
  if (existsSync(reserve)) return;
  try {
    writeFileSync(reserve, Buffer.alloc(RESERVE_BYTES));
  } catch {
    // Still full: whoever makes room also makes it for the next start.
    rmSync(reserve, { force: true });
  }
}
