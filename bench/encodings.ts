// How often the encoding of a file is found, on files whose names say it (of Debian's vim-runtime and libpython3.11-testsuite, unpacked
// anywhere): each whole, and lists of five rows made of their lines. npm run bench -- encodings FOLDER
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { findEncoding } from '../packages/core/src/intake/encoding';

const [folder] = process.argv.slice(2);
if (folder === undefined) throw new Error('npm run bench -- encodings FOLDER');
const print = (words: string) => process.stdout.write(`${words}\n`);

/** What the names call an encoding, and what the WHATWG standard does. */
const LABELS: Record<string, string> = {
  cp1250: 'windows-1250',
  cp1251: 'windows-1251',
  cp1254: 'windows-1254',
  latin1: 'windows-1252',
  latin2: 'iso-8859-2',
  'iso_8859-2': 'iso-8859-2',
  'iso_8859-5': 'iso-8859-5',
  'iso_8859-9': 'windows-1254',
  iso9: 'windows-1254',
  'koi8-r': 'koi8-r',
  'koi8-u': 'koi8-u',
  sjis: 'shift_jis',
  cp932: 'shift_jis',
  shift_jis: 'shift_jis',
  eucjp: 'euc-jp',
  'euc-jp': 'euc-jp',
  euc_jp: 'euc-jp',
  ujis: 'euc-jp',
  euckr: 'euc-kr',
  euc_kr: 'euc-kr',
  cp949: 'euc-kr',
  gb2312: 'gbk',
  gbk: 'gbk',
  cp936: 'gbk',
  gb18030: 'gb18030',
  big5: 'big5',
  cp950: 'big5',
};
const EUC: Record<string, string> = { ja: 'euc-jp', ko: 'euc-kr', zh: 'gbk' };

function labelOf(path: string): string | undefined {
  const name = path.split('/').at(-1)!;
  const euc = /^tutor\.(\w+)\.euc$/.exec(name)?.[1];
  const said = /^(?:tutor\.\w+|menu_\w+)\.([\w-]+?)(?:\.vim)?$/.exec(name) ?? /cjkencodings\/(\w+)\.txt$/.exec(path);
  return euc ? EUC[euc] : LABELS[said?.[1] ?? ''];
}

const filesIn = (dir: string): string[] =>
  readdirSync(dir, { withFileTypes: true }).flatMap((entry) =>
    entry.isDirectory() ? filesIn(join(dir, entry.name)) : [join(dir, entry.name)],
  );
const isRight = (bytes: Buffer, label: string) =>
  new TextDecoder(findEncoding(bytes)).decode(bytes) === new TextDecoder(label).decode(bytes);

const counts = { whole: 0, wholeRight: 0, lists: 0, listsRight: 0 };
const wrong = new Map<string, number>();
for (const path of filesIn(folder)) {
  const label = labelOf(path);
  if (label === undefined) continue;
  const bytes = readFileSync(path);
  counts.whole++;
  if (isRight(bytes, label)) counts.wholeRight++;
  const lines = bytes
    .toString('latin1')
    .split(/\r?\n/)
    .filter((line) => /[\x80-\xff]/.test(line) && line.length < 120);
  for (let i = 0; i + 5 <= lines.length && i < 50; i += 10) {
    const rows = lines.slice(i, i + 5).map((line, k) => `${k};${line.replaceAll(';', ',')}`);
    const list = Buffer.from(['No;Note', ...rows].join('\n'), 'latin1');
    counts.lists++;
    if (isRight(list, label)) counts.listsRight++;
    else wrong.set(`${label} as ${findEncoding(list)}`, (wrong.get(`${label} as ${findEncoding(list)}`) ?? 0) + 1);
  }
}
print(`whole files      ${counts.wholeRight} of ${counts.whole}`);
print(`lists of 5 rows  ${counts.listsRight} of ${counts.lists}`);
for (const [what, n] of [...wrong].sort((a, b) => b[1] - a[1])) print(`  ${what}: ${n}`);
