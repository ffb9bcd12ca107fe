import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import * as z from 'zod';
import { AppError } from '../errors';

const holder = z.object({ pid: z.int(), port: z.int() });

/**
 * Holds a data folder for this process alone, until `release` or its end: the operating system lets go of the lock of a process
 * that was killed. Throws `folder-taken`, with who has it, when another holds it.
 */
export function lockFolder(dataDir: string, port: number): { release: () => void } {
  const lock = new Database(join(dataDir, 'lock.db'), { timeout: 0 });
  const said = join(dataDir, 'lock.json');
  try {
    // Without a journal on the disk, which might be full.
    lock.pragma('journal_mode = MEMORY');
    lock.exec('BEGIN EXCLUSIVE');
  } catch (error) {
    lock.close();
    if ((error as { code?: string }).code !== 'SQLITE_BUSY') throw error;
    throw new AppError('folder-taken', { folder: dataDir, ...whoHas(said) });
  }
  try {
    writeFileSync(said, JSON.stringify({ pid: process.pid, port }));
  } catch {
    // A full disk: the lock holds all the same, a second process is only told less.
  }
  return { release: () => void lock.close() };
}

function whoHas(file: string): { pid: number | string; where: string } {
  try {
    const { pid, port } = holder.parse(JSON.parse(readFileSync(file, 'utf8')));
    return { pid, where: port > 0 ? ` at http://127.0.0.1:${port}` : '' };
  } catch {
    return { pid: 'unknown', where: '' };
  }
}
