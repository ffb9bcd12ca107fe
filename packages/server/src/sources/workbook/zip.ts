import { Transform, type Readable } from 'node:stream';
import { crc32 } from 'node:zlib';
import { open as openZip, type Entry, type ZipFile } from 'yauzl';
import { AppError } from '../../errors';

/** What a workbook may unpack to: a sheet full to its last row is about 1 GB. A larger one is a mistake or a trap. */
const MOST_BYTES = 2 * 1024 * 1024 * 1024;
const MOST_RATIO = 200;
const LEAST_LIMIT = 16 * 1024 * 1024;

/** The parts of a zip, by name. */
export interface Parts {
  has(part: string): boolean;
  /** The part unpacked; throws `broken-workbook` when it is not there. What breaks in the middle ends the stream with an error. */
  read(part: string): Promise<Readable>;
  close(): void;
}

/**
 * Opens a workbook as the zip that it is. Throws `broken-workbook` when it is none, `workbook-too-large` when it says that it
 * unpacks to too much; a part that unpacks to more than it says ends with an error.
 */
export async function openParts(file: string, name: string, packedBytes: number): Promise<Parts> {
  const zip = await new Promise<ZipFile>((resolve, reject) =>
    openZip(file, { lazyEntries: true, autoClose: false, validateEntrySizes: true }, (error, opened) =>
      error ? reject(broken(name, error)) : resolve(opened),
    ),
  );
  try {
    const parts = await partsOf(zip, name);
    const limit = Math.min(MOST_BYTES, Math.max(packedBytes * MOST_RATIO, LEAST_LIMIT));
    const total = [...parts.values()].reduce((sum, { uncompressedSize }) => sum + uncompressedSize, 0);
    if (total > limit)
      throw new AppError('workbook-too-large', { name, limit: `${Math.round(limit / 1024 / 1024)} MB` });
    return {
      has: (part) => parts.has(part.toLowerCase()),
      read: (part) =>
        new Promise((resolve, reject) => {
          const entry = parts.get(part.toLowerCase());
          if (!entry) return reject(broken(name, new Error(`it holds no ${part.slice(0, 60)}`)));
          zip.openReadStream(entry, (error, stream) =>
            error ? reject(broken(name, error)) : resolve(stream.pipe(checked(entry, stream))),
          );
        }),
      close: () => zip.close(),
    };
  } catch (error) {
    zip.close();
    throw error;
  }
}

/** Passes a part on and ends with an error when it is not what its checksum says, or breaks before. */
function checked({ crc32: wanted }: Entry, from: Readable): Transform {
  let sum = 0;
  const out = new Transform({
    transform(chunk: Buffer, _, done) {
      sum = crc32(chunk, sum);
      done(null, chunk);
    },
    flush: (done) => done(sum === wanted ? null : new Error('a part of it is damaged')),
  });
  from.on('error', (error) => out.destroy(error));
  return out;
}

const partsOf = (zip: ZipFile, name: string) =>
  new Promise<Map<string, Entry>>((resolve, reject) => {
    const parts = new Map<string, Entry>();
    zip.on('error', (error: Error) => reject(broken(name, error)));
    zip.on('end', () => resolve(parts));
    zip.on('entry', (entry: Entry) => {
      parts.set(entry.fileName.toLowerCase(), entry);
      zip.readEntry();
    });
    zip.readEntry();
  });

export const broken = (name: string, error: Error): AppError =>
  error instanceof AppError ? error : new AppError('broken-workbook', { name, detail: error.message.slice(0, 80) });
