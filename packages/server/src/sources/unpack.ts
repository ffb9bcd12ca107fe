import { createWriteStream } from 'node:fs';
import { open as openFile, rm } from 'node:fs/promises';
import { basename, join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { open as openZip, type Entry, type ZipFile } from 'yauzl';
import { AppError } from '../errors';

const MOST_FILES = 200;
/** Folders and parts of a workbook among them. */
const MOST_ENTRIES = 10_000;
/** What a zip of files may unpack to; a larger one is a mistake or a trap. */
const MOST_BYTES = 2 * 1024 * 1024 * 1024;
/** Parts by which a zip is a workbook. */
const OF_A_WORKBOOK = /^(\[content_types\]\.xml|mimetype|xl\/.*)$/i;
const UNSEEN = /(^|\/)(__MACOSX\/|\.)/;

interface Unpacked {
  id: string;
  name: string;
}

/**
 * Unpacks a zip of files into files of their own. Null for what is no zip, or a workbook, which is one.
 *
 * @param file its path
 * @param name what it is called
 * @param dir where the files go
 *
 * Throws AppError: `broken-zip`, `workbook-too-large`; then nothing of it stays.
 */
export async function unpack(file: string, name: string, dir: string, newId: () => string): Promise<Unpacked[] | null> {
  if (!(await isZip(file))) return null;
  const zip = await opened(file, name);
  const out: Unpacked[] = [];
  try {
    const entries = await entriesOf(zip, name);
    if (entries.some(({ fileName }) => OF_A_WORKBOOK.test(fileName))) return null;
    const files = entries.filter(({ fileName }) => !fileName.endsWith('/') && !UNSEEN.test(fileName));
    const bytes = files.reduce((sum, { uncompressedSize }) => sum + uncompressedSize, 0);
    if (bytes > MOST_BYTES) throw new AppError('workbook-too-large', { name, limit: '2 GB' });
    if (files.length === 0) throw new AppError('empty-file', { name });
    if (files.length > MOST_FILES) throw broken(name, `it holds ${files.length} files, more than ${MOST_FILES}`);
    for (const entry of files) {
      const id = newId();
      out.push({ id, name: basename(entry.fileName).slice(0, 300) });
      await pipeline(await read(zip, entry), createWriteStream(join(dir, id)));
    }
    return out;
  } catch (error) {
    await Promise.all(out.map(({ id }) => rm(join(dir, id), { force: true })));
    throw error instanceof AppError ? error : broken(name, (error as Error).message);
  } finally {
    zip.close();
  }
}

const broken = (name: string, detail: string) => new AppError('broken-zip', { name, detail: detail.slice(0, 80) });

async function isZip(file: string): Promise<boolean> {
  const handle = await openFile(file);
  try {
    const { buffer } = await handle.read(Buffer.alloc(4), 0, 4, 0);
    return buffer.toString('latin1') === 'PK\x03\x04';
  } finally {
    await handle.close();
  }
}

/** What cannot be opened as a zip is left to who reads it as a file. */
const opened = (file: string, name: string) =>
  new Promise<ZipFile>((resolve, reject) =>
    openZip(file, { lazyEntries: true, autoClose: false, validateEntrySizes: true }, (error, zip) =>
      error ? reject(broken(name, error.message)) : resolve(zip),
    ),
  );

const entriesOf = (zip: ZipFile, name: string) =>
  new Promise<Entry[]>((resolve, reject) => {
    const entries: Entry[] = [];
    zip.on('error', (error: Error) => reject(broken(name, error.message)));
    zip.on('end', () => resolve(entries));
    zip.on('entry', (entry: Entry) => {
      entries.push(entry);
      if (entries.length > MOST_ENTRIES) reject(broken(name, `it holds more than ${MOST_ENTRIES} entries`));
      else zip.readEntry();
    });
    zip.readEntry();
  });

const read = (zip: ZipFile, entry: Entry) =>
  new Promise<Readable>((resolve, reject) =>
    zip.openReadStream(entry, (error, stream) => (error ? reject(error) : resolve(stream))),
  );
