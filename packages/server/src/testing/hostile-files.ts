import { seededRandom } from '@sieve/core/text/random';

/** A file as nobody should make it. `rows`: how many rows below the header it has, where that can be known. */
export interface HostileFile {
  bytes: Buffer;
  said: { delimiter?: string };
  rows: number | null;
  how: string;
}

const CELLS = [
  'Maren Oakhill', 'Idris Venn', 'm@tidewell.example', '=1+1', '\u202E=cmd', '\u200B', '🙂 Aoife', 'Ł. Müller-Ødegård', '+44 20 7946 0018',
  "O'Rourke", 'NULL', 'null', '__proto__', 'constructor', '1e308', '-0', '2026-02-30', '﻿', '\t', '  ', '""', '<b>', '%s%n', '../../etc', '\u2028',
]; // prettier-ignore
const ENDS = ['\n', '\r\n', '\r'];
const DELIMITERS = [',', ';', '\t', '|'];

/** A table with odd cells, whose rows are known. */
function table(random: () => number): HostileFile {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const delimiter = pick(DELIMITERS);
  const width = 2 + Math.floor(random() * 9);
  const rows = 1 + Math.floor(random() * 40);
  const quoted = (cell: string) =>
    /["\r\n]/.test(cell) || cell.includes(delimiter) || random() < 0.2 ? `"${cell.replaceAll('"', '""')}"` : cell;
  // Somebody stands in each row: one without anything is blank, and counted apart.
  const lines = Array.from({ length: rows }, (_, i) =>
    Array.from({ length: width }, (_cell, k) =>
      quoted(k === 0 ? `Maren Oakhill${i}` : random() < 0.2 ? `two${pick(ENDS)}lines` : pick(CELLS)),
    ).join(delimiter),
  );
  const header = Array.from({ length: width }, (_, k) => (k === 0 ? 'Full name' : `Field ${k}`)).join(delimiter);
  const end = pick(ENDS);
  const text = [header, ...lines].map((line) => line + (random() < 0.1 ? pick(ENDS) : end)).join('');
  const encoding = pick(['utf8', 'utf8', 'bom', 'utf16le'] as const);
  const bytes =
    encoding === 'utf16le'
      ? Buffer.from(`\uFEFF${text}`, 'utf16le')
      : Buffer.from(encoding === 'bom' ? `\uFEFF${text}` : text, 'utf8');
  return { bytes, said: { delimiter }, rows, how: `a table in ${encoding}` };
}

/** What happens to files on their way. */
const MISHAPS: Record<string, (bytes: Buffer, random: () => number) => Buffer> = {
  'cut off': (bytes, random) => bytes.subarray(0, Math.floor(random() * bytes.length)),
  'bits turned': (bytes, random) => {
    const out = Buffer.from(bytes);
    for (let n = 1 + Math.floor(random() * 20); n > 0; n--)
      out[Math.floor(random() * out.length)]! ^= 1 << Math.floor(random() * 8);
    return out;
  },
  'zeros between': (bytes, random) => {
    const at = Math.floor(random() * bytes.length);
    return Buffer.concat([bytes.subarray(0, at), Buffer.alloc(1 + Math.floor(random() * 30)), bytes.subarray(at)]);
  },
  'a quotation mark too many': (bytes, random) => {
    const at = Math.floor(random() * bytes.length);
    return Buffer.concat([bytes.subarray(0, at), Buffer.from('"'), bytes.subarray(at)]);
  },
  'two files as one': (bytes) => Buffer.concat([bytes, bytes.subarray(Math.floor(bytes.length / 3))]),
  'said to be a workbook': (bytes) => Buffer.concat([Buffer.from('PK\x03\x04', 'latin1'), bytes]),
  'random bytes': (bytes, random) => Buffer.from(bytes.map(() => Math.floor(random() * 256))),
  'one line without an end': (bytes) => Buffer.from(bytes.filter((byte) => byte !== 10 && byte !== 13)),
  'only delimiters': (_, random) => Buffer.from(',;\t|\n'.repeat(1 + Math.floor(random() * 200))),
};

/** The same file for the same seed; two in three have met with a mishap. */
export function hostileFile(seed: number): HostileFile {
  const random = seededRandom(seed);
  const made = table(random);
  if (seed % 3 === 0) return made;
  const names = Object.keys(MISHAPS);
  const name = names[Math.floor(random() * names.length)]!;
  return { bytes: MISHAPS[name]!(made.bytes, random), said: {}, rows: null, how: `${made.how}, ${name}` };
}
