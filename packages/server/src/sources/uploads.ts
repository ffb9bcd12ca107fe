import { existsSync } from 'node:fs';
import { mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import { AppError } from '../errors';

/** Where uploads lie, each under its own name; made when it is not there. */
export async function uploadsDir(dataDir: string): Promise<string> {
  const dir = join(dataDir, 'uploads');
  await mkdir(dir, { recursive: true });
  return dir;
}

/** The path of an upload; throws when there is none. */
export function uploadPath(dataDir: string, upload: string): string {
  const file = join(dataDir, 'uploads', upload);
  if (!existsSync(file)) throw new AppError('not-found', { what: 'upload' });
  return file;
}
