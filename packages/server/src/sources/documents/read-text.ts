import { readFile, stat } from 'node:fs/promises';
import { AppError } from '../../errors';

/** A file that can only be read as a whole. Throws AppError when it is longer than that is done with. */
export async function readText(file: string, encoding: string, mostBytes: number): Promise<string> {
  if ((await stat(file)).size > mostBytes) throw new AppError('too-large', { limit: `${mostBytes / 1024 / 1024} MB` });
  return new TextDecoder(encoding).decode(await readFile(file));
}
