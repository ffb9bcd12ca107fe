import { createWriteStream, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { once } from 'node:events';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import archiver from 'archiver';
import ExcelJS from 'exceljs';
import type { RawRow } from '@sieve/core';
import { seededRandom } from '@sieve/core/text/random';
import type { AppError } from '../../errors';
import { columnOf, dateText, numberText } from './cells';
import { workbookRows } from './read-workbook';

jest.setTimeout(60_000);
const dir = mkdtempSync(join(tmpdir(), 'workbook-'));
afterAll(() => rmSync(dir, { recursive: true, force: true }));
const file = join(dir, 'book.xlsx');

const NS = 'xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"';
const RELATIONS = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const relation = (id: string, type: string, target: string) =>
  `<Relationship Id="${id}" Type="${RELATIONS}/${type}" Target="${target}"/>`;
const relations = (...all: string[]) =>
  `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${all.join('')}</Relationships>`;

/** A workbook of one sheet, written as its parts. */
async function book(sheet: string, more: Record<string, string> = {}) {
  const parts: Record<string, string> = {
    '_rels/.rels': relations(relation('a', 'officeDocument', 'xl/workbook.xml')),
    'xl/workbook.xml': `<workbook ${NS} xmlns:r="${RELATIONS}"><sheets><sheet name="One" r:id="s"/></sheets></workbook>`,
    'xl/_rels/workbook.xml.rels': relations(
      relation('s', 'worksheet', 'worksheets/sheet1.xml'),
      relation('t', 'sharedStrings', 'sharedStrings.xml'),
      relation('u', 'styles', '/xl/styles.xml'),
    ),
    'xl/worksheets/sheet1.xml': sheet,
    'xl/styles.xml': `<styleSheet ${NS}><numFmts><numFmt numFmtId="164" formatCode="[$-409]d\\ mmm;@"/><numFmt numFmtId="165" formatCode="0 &quot;days&quot;"/></numFmts>
      <cellXfs><xf numFmtId="0"/><xf numFmtId="14"/><xf numFmtId="164"/><xf numFmtId="165"/></cellXfs></styleSheet>`,
    'xl/sharedStrings.xml': `<sst ${NS}><si><t>Name</t></si><si><r><t>Maren </t></r><r><t xml:space="preserve">Oakhill</t></r><rPh><t>マレン</t></rPh></si></sst>`,
    ...more,
  };
  const archive = archiver('zip');
  const out = archive.pipe(createWriteStream(file));
  for (const [name, content] of Object.entries(parts)) archive.append(content, { name });
  await archive.finalize();
  await once(out, 'close');
}
async function rows(sheet = ''): Promise<RawRow[]> {
  const out: RawRow[] = [];
  for await (const some of workbookRows(file, 'book.xlsx', sheet)) out.push(...some);
  return out;
}
const data = (inner: string, prefix = '') =>
  `<${prefix}worksheet ${prefix ? NS.replace('xmlns', `xmlns:${prefix.slice(0, -1)}`) : NS}><${prefix}sheetData>${inner}</${prefix}sheetData></${prefix}worksheet>`;

test('a phone number in a date’s cell stays a number; dates by built-in and own formats are days', async () => {
  await book(
    data(
      '<row r="2"><c r="A2" s="1"><v>441134960417</v></c><c r="B2" s="2"><v>46095</v></c><c r="D2" s="3"><v>46095.5</v></c></row>',
    ),
  );
  expect(await rows()).toEqual([{ line: 2, cells: ['441134960417', '2026-03-14', '', '46095.5'] }]);
});

test('rows and cells without a reference stand behind the one before; prefixes count for nothing', async () => {
  await book(
    data(
      '<row><c t="s"><v>1</v></c><c t="inlineStr"><is><t>a_x000A_b</t></is></c></row><row r="5"><c r="C5" t="b"><v>1</v></c><c t="str"><v>x</v></c></row><row><c><v>7</v></c></row>',
    ),
  );
  const expected = [
    { line: 1, cells: ['Maren Oakhill', 'a\nb'] },
    { line: 5, cells: ['', '', 'true', 'x'] },
    { line: 6, cells: ['7'] },
  ];
  expect(await rows()).toEqual(expected);
  await book(
    data(
      '<x:row><x:c t="s"><x:v>1</x:v></x:c><x:c t="inlineStr"><x:is><x:t>a_x000A_b</x:t></x:is></x:c></x:row><x:row r="5"><x:c r="C5" t="b"><x:v>1</x:v></x:c><x:c t="str"><x:v>x</x:v></x:c></x:row><x:row><x:c><x:v>7</x:v></x:c></x:row>',
      'x:',
    ),
  );
  expect(await rows()).toEqual(expected);
});

test('what is lost is told: a sheet that breaks off, a string that is not there, a cell behind the last column', async () => {
  const whole = data(
    '<row r="1"><c t="s"><v>0</v></c></row><row r="2"><c t="s"><v>9</v></c><c r="ZZZZ2"><v>1</v></c></row><row r="3"><c><v>3</v></c></row>',
  );
  await book(whole.slice(0, whole.indexOf('<row r="3"') + 20));
  expect(await rows()).toEqual([
    { line: 1, cells: ['Name'] },
    { line: 2, cells: [''], problem: 'cell-unreadable' },
    { line: 4, cells: ['the sheet breaks off here, or is damaged'], problem: 'sheet-cut' },
  ]);
  await expect(rows('Two')).rejects.toMatchObject({ code: 'broken-workbook' });
  await book(whole, { 'xl/workbook.xml': '<workbook><sheets>' });
  await expect(rows()).rejects.toMatchObject({ code: 'broken-workbook' });
});

test('a damaged workbook always ends: rows, told losses, or an error with a code', async () => {
  const written = new ExcelJS.Workbook();
  const sheet = written.addWorksheet('One');
  for (let i = 0; i < 300; i++)
    sheet.addRow([`Maren ${i}`, `m${i}@firm${i}.example`, new Date(Date.UTC(2026, 1, 1 + (i % 28))), i]);
  const good = Buffer.from(await written.xlsx.writeBuffer());
  writeFileSync(file, good);
  const whole = await rows();
  expect(whole).toHaveLength(300);
  const random = seededRandom(7);
  const ends = { rows: 0, told: 0, refused: 0 };
  for (let n = 0; n < 300; n++) {
    const bytes = Buffer.from(good);
    for (let hits = 0; hits <= n % 4; hits++) bytes[Math.floor(random() * bytes.length)] = Math.floor(random() * 256);
    writeFileSync(file, n % 5 === 0 ? bytes.subarray(0, Math.floor(random() * bytes.length)) : bytes);
    try {
      const read = await rows();
      if (read.some(({ problem }) => problem !== undefined)) ends.told++;
      else {
        // Hit where nothing is read from: every row is as it was.
        expect(read).toEqual(whole);
        ends.rows++;
      }
    } catch (error) {
      expect((error as AppError).code).toMatch(/^(broken-workbook|workbook-too-large)$/);
      ends.refused++;
    }
  }
  expect(ends.refused).toBeGreaterThan(20);
  expect(ends.rows + ends.told + ends.refused).toBe(300);
});

test('what exceljs writes is read as it was, by another reader’s measure', async () => {
  const values = [
    ['Name', 'When', 'Sum'],
    ['Aoife', '2026-03-14', '1.5'],
    ['', '2026-03-14 09:30:00', ''],
  ];
  const written = new ExcelJS.Workbook();
  const sheet = written.addWorksheet('One');
  sheet.addRow(values[0]);
  sheet.addRow(['Aoife', new Date(Date.UTC(2026, 2, 14)), { formula: '1+0.5', result: 1.5 }]);
  sheet.addRow([null, new Date(Date.UTC(2026, 2, 14, 9, 30)), null]);
  await written.xlsx.writeFile(file);
  expect(readFileSync(file).length).toBeGreaterThan(0);
  expect((await rows()).map(({ cells }) => [...cells, '', ''].slice(0, 3))).toEqual(values);
});

// ECMA-376, part 1, 18.17.4.1: serial values of the 1900 and 1904 date systems.
test.each([
  ['1', false, '1900-01-01'],
  ['59', false, '1900-02-28'],
  ['61', false, '1900-03-01'],
  ['2958465', false, '9999-12-31'],
  ['0', true, '00:00:00'],
  ['1', true, '1904-01-02'],
  ['0.75', false, '18:00:00'],
  ['2958466', false, '2958466'],
  ['-3', false, '-3'],
  ['n/a', false, 'n/a'],
])('day %s, from 1904: %s, is %s', (value, from1904, expected) => expect(dateText(value, from1904)).toBe(expected));

test('references and numbers', () => {
  expect(['A1', 'z9', 'AA1', 'XFD1', '12', ''].map(columnOf)).toEqual([0, 25, 26, 16383, null, null]);
  expect(['1.1340000000000001E+2', '00', '12345678901234567890', '1E+400', 'x'].map(numberText)).toEqual([
    '113.4',
    '0',
    '12345678901234567890',
    '1E+400',
    'x',
  ]);
});
