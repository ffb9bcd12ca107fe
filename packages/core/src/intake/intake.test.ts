import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import Papa from 'papaparse';
import { seededRandom } from '../text/random';
import { delimitedReader, type RawRow } from './delimited';
import { findDelimiter } from './delimiter';
import { findEncoding, looksBinary } from './encoding';
import { findHeader } from './header';
import { recogniseColumns } from './recognise';
import { toRecords } from './records';

const readAll = (text: string, delimiter = ',', piece = text.length): RawRow[] => {
  const reader = delimitedReader(delimiter);
  const rows: RawRow[] = [];
  for (let at = 0; at < text.length; at += piece) rows.push(...reader.push(text.slice(at, at + piece)));
  return [...rows, ...reader.end()];
};
const cells = (rows: RawRow[]) => rows.map((row) => row.cells).filter((row) => row.some((cell) => cell !== ''));

// csv-spectrum 2.0.0: the conformance files for RFC 4180.
const spectrum = join(dirname(require.resolve('csv-spectrum/package.json')), 'csvs');
// The JSON beside location_coordinates.csv holds another phone than the CSV does.
test.each(readdirSync(spectrum).filter((name) => name !== 'location_coordinates.csv'))('csv-spectrum %s', (name) => {
  const expected = JSON.parse(
    readFileSync(join(spectrum, '..', 'json', name.replace(/\.csv$/, '.json')), 'utf8'),
  ) as Record<string, string>[];
  const [header, ...rows] = cells(readAll(readFileSync(join(spectrum, name), 'utf8')));
  expect(rows.map((row) => Object.fromEntries(header!.map((key, i) => [key, row[i]])))).toEqual(expected);
});

test('reads as papaparse does, in pieces of any size', () => {
  const random = seededRandom(11);
  const parts = ['a', 'bc', '"x"', '"x ""y"""', '"1,2"', '"two\nlines"', '', ' d '];
  for (let round = 0; round < 300; round++) {
    const text =
      Array.from({ length: 1 + Math.floor(random() * 6) }, () =>
        Array.from({ length: 3 }, () => parts[Math.floor(random() * parts.length)]).join(','),
      ).join(round % 2 ? '\n' : '\r\n') + (round % 3 ? '' : round % 2 ? '\n' : '\r\n');
    const wanted = Papa.parse<string[]>(text, { newline: round % 2 ? '\n' : '\r\n' }).data.filter((row) =>
      row.some((cell) => cell !== ''),
    );
    expect(cells(readAll(text, ',', 1 + Math.floor(random() * 7)))).toEqual(wanted);
  }
});

test('a quote that is never closed costs its own line and no other', () => {
  const rows = readAll('a,b\n"torn,1\nc,2\n"d",3\n');
  expect(rows.map((row) => [row.line, row.cells, row.problem])).toEqual([
    [1, ['a', 'b'], undefined],
    [2, ['"torn', '1'], 'quote-not-closed'],
    [3, ['c', '2'], undefined],
    [4, ['d', '3'], undefined],
  ]);
  expect(readAll('x,"y\nz,1').map((row) => row.problem)).toEqual(['quote-not-closed', undefined]);
});

test('every row in is a record, blank, or listed with its line and reason', () => {
  const raw = readAll(`a,b\n1,2\n\n3\n4,5,6\n${'x'.repeat(40_000)},1\n"q,7,8\n`);
  const read = toRecords(raw.slice(1), 2);
  expect(read.records.map((row) => row.cells)).toEqual([
    ['1', '2'],
    ['3', ''],
    ['4', '5', '6'],
  ]);
  expect(read.issues.map(({ line, code, kept }) => [line, code, kept])).toEqual([
    [4, 'too-few-cells', true],
    [5, 'too-many-cells', true],
    [6, 'cell-too-long', false],
    [7, 'quote-not-closed', false],
  ]);
  expect(read.records.length + read.blank + read.issues.filter((issue) => !issue.kept).length).toBe(raw.length - 1);
});

test.each([
  ['a;b;c\n1;2,5;3\n', ';'],
  ['a\tb\n1\t2\n', '\t'],
  ['a,b\n"1;2;3",4\n', ','],
  ['name\nMaren\n', ','],
])('delimiter of %j', (text, delimiter) => expect(findDelimiter(text)).toBe(delimiter));

test.each([
  ['utf-8', Buffer.from('Saoirse Ní Bhriain, Münster')],
  ['utf-8', Buffer.from('\uFEFFName')],
  ['utf-16le', Buffer.from('Name,Firma', 'utf16le')],
  ['windows-1252', Buffer.from('Name;Stadt\nJürgen Müller;Köln\nRené;Orléans\nSiân;Tŷ\n'.replace('ŷ', 'y'), 'latin1')],
])('encoding %s', (label, bytes) => expect(findEncoding(bytes)).toBe(label));

test('rows end with LF, CRLF or CR, mixed in one file, in pieces of any size', () => {
  const random = seededRandom(11);
  for (let round = 0; round < 200; round++) {
    const lines = Array.from({ length: 12 }, (_, i) => (i % 4 === 3 ? `"a\r\nb${i}",c` : `r${i},x`));
    const text = lines.map((line) => line + ['\n', '\r\n', '\r'][Math.floor(random() * 3)]!).join('');
    const reader = delimitedReader(',');
    const rows: RawRow[] = [];
    for (let at = 0; at < text.length;) {
      const size = 1 + Math.floor(random() * 9);
      rows.push(...reader.push(text.slice(at, at + size)));
      at += size;
    }
    rows.push(...reader.end());
    expect(rows.map(({ cells }) => cells[0])).toEqual(lines.map((_, i) => (i % 4 === 3 ? `a\r\nb${i}` : `r${i}`)));
    expect(rows.at(-1)!.line).toBe(12 + 2);
  }
});

test('a row without an end is told and passed over; what follows is read', () => {
  const reader = delimitedReader(',');
  const rows = [];
  for (let i = 0; i < 40; i++) rows.push(...reader.push('x'.repeat(256 * 1024)));
  rows.push(...reader.push('end\r'), ...reader.push('\nMaren,m@tidewell.example\n'), ...reader.end());
  expect(rows.map(({ line, cells, problem }) => [line, cells[0]!.length, problem])).toEqual([
    [1, 300, 'row-too-long'],
    [2, 5, undefined],
  ]);
  const { records, issues } = toRecords(rows, 2);
  expect([records.length, issues[0]]).toEqual([1, expect.objectContaining({ code: 'row-too-long', kept: false })]);
});

test('a header of words that nobody knows is found above figures; decimals are no phones; a total is told', () => {
  const body = Array.from({ length: 8 }, (_, i) => [`${5 + i / 10}`, `${3.1 + i / 10}`, '0.2718281828', 'setosa']);
  const names = ['Sepal.Length', 'Sepal.Width', 'Petal.Width', 'Species'];
  expect(findHeader([names, ...body])).toEqual({ row: 0, names });
  expect(findHeader(body).row).toBe(-1);
  expect(
    findHeader([
      ['Zorp', 'Quell'],
      ['a@x.example', '4'],
      ['b@x.example', '5'],
    ]).row,
  ).toBe(0);
  const targets = recogniseColumns(names, body).map(({ target }) => target);
  expect(targets).not.toContain('phone');
  const rows = [
    ['Maren', '12'],
    ['Total 300', ''],
    ['Totals Ltd', '3'],
    ['Sum:', '1,200.50'],
  ];
  const { records, issues } = toRecords(
    rows.map((cells, i) => ({ line: i + 1, cells })),
    2,
  );
  expect([records.length, issues.map(({ line, code, kept }) => [line, code, kept])]).toEqual([
    4,
    [
      [2, 'looks-like-a-total', true],
      [4, 'looks-like-a-total', true],
    ],
  ]);
});

test('every encoding that is found can be decoded; ASCII that looks like another is not taken for it', () => {
  const found = new Set<string>();
  const random = seededRandom(3);
  for (let i = 0; i < 300; i++) {
    const low = Math.floor(random() * 200);
    found.add(findEncoding(Uint8Array.from({ length: 400 }, () => low + Math.floor(random() * (256 - low)))));
  }
  for (const label of found) expect(() => new TextDecoder(label)).not.toThrow();
  expect(findEncoding(new TextEncoder().encode('Name;Town\nMaren;~{VPND~}\n'))).toBe('utf-8');
  expect(findEncoding(Uint8Array.from([...Buffer.from('Name;Town\nMaren;~{VPND~};Caf'), 0xe9, 10]))).toBe(
    'windows-1252',
  );
  const cyrillic = 'Марен Дубрава живёт в городе, и это письмо достаточно длинное, чтобы его узнать. ';
  const mac = Uint8Array.from(
    [...cyrillic.repeat(4)].map((c) => {
      const code = c.codePointAt(0)!;
      return code < 128
        ? code
        : c === 'ё'
          ? 0xde
          : c === 'я'
            ? 0xdf
            : code >= 0x430
              ? code - 0x430 + 0xe0
              : code - 0x410 + 0x80;
    }),
  );
  expect(new TextDecoder(findEncoding(mac)).decode(mac)).toBe(cyrillic.repeat(4));
});

test('a picture is no table', () => {
  expect(looksBinary(Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 1, 2, 3, 4, 5, 6, 7]))).toBe(true);
  expect(looksBinary(Buffer.from('a,b\n1,2\n'))).toBe(false);
});

test('the header is found below title lines, or found to be missing', () => {
  const body = Array.from({ length: 6 }, (_, i) => [`Maren Oakhill ${i}`, `m${i}@brackenfold.example`, 'Wells']);
  expect(findHeader([['Show 2026', '', ''], ['', '', 'Hall A'], ['Contact Name', 'E-Mail', 'Town'], ...body])).toEqual({
    row: 2,
    names: ['Contact Name', 'E-Mail', 'Town'],
  });
  expect(findHeader(body)).toEqual({ row: -1, names: ['Column 1', 'Column 2', 'Column 3'] });
  expect(findHeader([['Name', 'Name', ''], ...body]).names).toEqual(['Name', 'Name 2', 'Column 3']);
});

test('columns are recognised from names in other tongues and from values alone', () => {
  const rows = [
    [
      'MAREN OAKHILL ★',
      'Head of Quality',
      'BRACKENFOLD DAIRY LTD',
      'A14',
      'm.oakhill@brackenfold.example',
      '0113 496 0417',
      'rind',
    ],
    ['Tobias Lindqvist', 'Production Manager', 'Hollin Creamery', 'B02', 't@hollin.example', '1.13496E+09', ''],
  ];
  const named = recogniseColumns(['Contact Nam', 'Position', 'Firma', 'Stand', 'E-Mail', 'Tel', 'Bemerkung'], rows);
  expect(named.map(({ target }) => target)).toEqual(['fullName', 'title', 'company', 'skip', 'email', 'phone', 'note']);
  expect(named[5]!.lostDigits).toBe(1);
  const bare = recogniseColumns(
    ['Column 1', 'Column 2', 'Column 3', 'Column 4', 'Column 5', 'Column 6', 'Column 7'],
    rows,
    ['creamery'],
  );
  expect(bare.slice(0, 6).map(({ target }) => target)).toEqual([
    'fullName',
    'title',
    'company',
    'own',
    'email',
    'phone',
  ]);
});

test('a column says what it was recognised by, and what its values are', () => {
  const names = ['Name', 'Column 2', 'Fon', 'Wheels', 'E-mail', 'Vorname', 'Family'];
  const rows = [
    ['Oakhill', 'www.brackenfold.example', '0113 496 0142', '1,250', 'maren@brackenfold.example', 'Maren', ''],
    ['Venn', 'www.tidewell.example', '020 7946 0318', '90', 'tobias@tidewell.example', 'Tobias', ''],
  ];
  expect(recogniseColumns(names, rows).map(({ target, why, type }) => [target, why, type])).toEqual([
    ['lastName', 'beside', 'text'],
    ['website', 'values', 'text'],
    ['phone', 'both', 'text'],
    ['own', 'nothing', 'number'],
    ['email', 'both', 'text'],
    ['firstName', 'both', 'text'],
    ['skip', 'nothing', 'text'],
  ]);
});
