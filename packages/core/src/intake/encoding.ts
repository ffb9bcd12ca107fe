import { detect } from 'jschardet';

/** How many bytes of a file are enough to tell its encoding. */
export const ENCODING_SAMPLE_BYTES = 256 * 1024;

/**
 * The label of the encoding that bytes are written in, as the WHATWG Encoding Standard names it.
 *
 * A byte order mark decides; then well-formed UTF-8; then the zero bytes of UTF-16; then statistics
 * (jschardet); what is left is windows-1252, which can be read without an error.
 */
export function findEncoding(bytes: Uint8Array): string {
  const [a, b, c] = bytes;
  if (a === 0xef && b === 0xbb && c === 0xbf) return 'utf-8';
  if (a === 0xff && b === 0xfe) return 'utf-16le';
  if (a === 0xfe && b === 0xff) return 'utf-16be';
  if (isUtf8(bytes)) return zeroShare(bytes, 0) > 0.3 ? 'utf-16be' : zeroShare(bytes, 1) > 0.3 ? 'utf-16le' : 'utf-8';
  if (zeroShare(bytes, 1) > 0.3) return 'utf-16le';
  if (zeroShare(bytes, 0) > 0.3) return 'utf-16be';
  const guess = detect(latin1(bytes.subarray(0, 64 * 1024)));
  const said = guess.encoding?.toLowerCase() ?? '';
  const label = NAMED_OTHERWISE[said] ?? said;
  // In a list most is ASCII: how sure the statistics are says little, which one they put first says much.
  return GUESSED.has(label) && !(label === 'windows-1250' && isAlikeIn1252(bytes)) ? label : 'windows-1252';
}

/** Bytes above ASCII that windows-1250 and windows-1252 read alike (WHATWG Encoding Standard, the indexes of both). */
const ALIKE_IN_1252 = new Set(
  [
    '80 82 84 85 86 87 89 8a 8b 8e 91 92 93 94 95 96 97 99 9a 9b 9e a0 a4 a6 a7 a8 a9 ab ac ad ae b0 b1 b4 b5 b6 b7 b8 bb c1 c2',
    'c4 c7 c9 cb cd ce d3 d4 d6 d7 da dc dd df e1 e2 e4 e7 e9 eb ed ee f3 f4 f6 f7 fa fc fd',
  ]
    .join(' ')
    .split(' ')
    .map((hex) => parseInt(hex, 16)),
);
const isAlikeIn1252 = (bytes: Uint8Array): boolean => bytes.every((byte) => byte < 0x80 || ALIKE_IN_1252.has(byte));

/** What jschardet calls otherwise than the standard. */
const NAMED_OTHERWISE: Record<string, string> = {
  maccyrillic: 'x-mac-cyrillic',
  'tis-620': 'windows-874',
  gb2312: 'gbk',
  cp932: 'shift_jis',
  cp949: 'euc-kr',
  johab: 'euc-kr',
  'euc-tw': 'big5',
};
/**
 * Encodings of the standard that are told by their bytes. Not among them: those that every text of ASCII could be (HZ, ISO 2022,
 * UTF-7), and the plain ones, which are windows-1252 here.
 */
const GUESSED = new Set([
  ...['windows-1250', 'windows-1251', 'windows-1253', 'windows-1254', 'windows-1255', 'windows-874'],
  ...['iso-8859-2', 'iso-8859-5', 'iso-8859-7', 'iso-8859-8', 'koi8-r', 'koi8-u', 'ibm866', 'x-mac-cyrillic'],
  ...['gbk', 'gb18030', 'big5', 'euc-jp', 'shift_jis', 'iso-2022-jp', 'euc-kr'],
]);

/** True when the bytes are well-formed UTF-8; a sequence cut off at the end counts as well-formed. */
export function isUtf8(bytes: Uint8Array): boolean {
  for (let i = 0; i < bytes.length;) {
    const byte = bytes[i++]!;
    if (byte < 0x80) continue;
    const more =
      byte >= 0xc2 && byte <= 0xdf ? 1 : byte >= 0xe0 && byte <= 0xef ? 2 : byte >= 0xf0 && byte <= 0xf4 ? 3 : -1;
    if (more < 0) return false;
    for (let k = 0; k < more; k++, i++) {
      if (i >= bytes.length) return true;
      if ((bytes[i]! & 0xc0) !== 0x80) return false;
    }
  }
  return true;
}

/** True when the bytes are no text at all: control characters that no text file holds. */
export function looksBinary(bytes: Uint8Array): boolean {
  if (zeroShare(bytes, 0) > 0.3 || zeroShare(bytes, 1) > 0.3) return false;
  let odd = 0;
  for (const byte of bytes) if (byte < 0x09 || (byte > 0x0d && byte < 0x20 && byte !== 0x1b)) odd++;
  return odd > bytes.length * 0.01;
}

function zeroShare(bytes: Uint8Array, offset: 0 | 1): number {
  let zeros = 0;
  for (let i = offset; i < bytes.length; i += 2) if (bytes[i] === 0) zeros++;
  return bytes.length < 2 ? 0 : zeros / Math.floor(bytes.length / 2);
}

function latin1(bytes: Uint8Array): string {
  let text = '';
  for (let i = 0; i < bytes.length; i += 8192) text += String.fromCharCode(...bytes.subarray(i, i + 8192));
  return text;
}
