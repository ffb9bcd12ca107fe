import { open } from 'node:fs/promises';
import { ENCODING_SAMPLE_BYTES, findEncoding } from '@sieve/core';

const SAYS_ITSELF_BYTES = 4096;

/** The beginning of a file, as much as its encoding is told by. */
export async function head(file: string): Promise<Buffer> {
  const handle = await open(file);
  try {
    const buffer = Buffer.alloc(ENCODING_SAMPLE_BYTES);
    const { bytesRead } = await handle.read(buffer, 0, buffer.length, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await handle.close();
  }
}

/** What a page says of itself counts, where its bytes leave it open. */
export function encodingOf(bytes: Buffer): string {
  const found = findEncoding(bytes);
  if (found.startsWith('utf')) return found;
  const said = /<meta[^>]+charset\s*=\s*["']?([\w-]+)/i.exec(
    bytes.subarray(0, SAYS_ITSELF_BYTES).toString('latin1'),
  )?.[1];
  try {
    return said ? new TextDecoder(said).encoding : found;
  } catch {
    return found;
  }
}
