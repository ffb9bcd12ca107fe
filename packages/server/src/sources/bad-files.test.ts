import { NO_LISTS } from '@sieve/core';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import archiver from 'archiver';
import ExcelJS from 'exceljs';
import { createWriteStream } from 'node:fs';
import { once } from 'node:events';
import { openDb } from '../db/open';
import { inspectFile } from './inspect';

jest.setTimeout(60_000);
const dir = mkdtempSync(join(tmpdir(), 'files-'));
const db = openDb(':memory:', join(__dirname, '../../migrations'));
const inspect = (name: string) =>
  inspectFile(db, { file: join(dir, name), name, said: {}, mapped: null, jobId: null }, NO_LISTS);
const write = (name: string, content: string | Buffer) => writeFileSync(join(dir, name), content);

async function zip(name: string, entry: string, size: number) {
  const archive = archiver('zip', { zlib: { level: 9 } });
  const out = archive.pipe(createWriteStream(join(dir, name)));
  archive.append(Buffer.alloc(size), { name: entry });
  await archive.finalize();
  await once(out, 'close');
}

test.each([
  ['empty.csv', '', 'empty-file'],
  ['header-only.csv', 'Name,Email\n', 'no-rows'],
  [
    'picture.csv',
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, ...Array.from({ length: 200 }, (_, i) => i % 9)]),
    'binary-file',
  ],
  ['old.xls', Buffer.from('d0cf11e0a1b11ae1', 'hex'), 'old-workbook'],
  [
    'wide.csv',
    `${Array.from({ length: 501 }, (_, i) => `c${i}`).join(',')}\n${'x,'.repeat(500)}x\n`,
    'too-many-columns',
  ],
  ['broken.xlsx', Buffer.concat([Buffer.from('PK\x03\x04', 'latin1'), Buffer.alloc(400, 7)]), 'broken-workbook'],
])('%s is refused with its own words', async (name, content, code) => {
  write(name, content);
  await expect(inspect(name)).rejects.toMatchObject({ code });
});

test('a zip bomb is not unpacked, and a zip that is no workbook is told', async () => {
  await zip('bomb.xlsx', 'xl/workbook.xml', 600 * 1024 * 1024);
  await expect(inspect('bomb.xlsx')).rejects.toMatchObject({ code: 'workbook-too-large' });
  await zip('other.xlsx', 'hello.txt', 10);
  await expect(inspect('other.xlsx')).rejects.toMatchObject({ code: 'broken-workbook' });
});

test('500 columns and a wrong ending are read; a 1 MB cell costs its row only', async () => {
  write('really-a-table.pdf', `Name,Email\nMaren Oakhill,${'x'.repeat(1 << 20)}\nTobias Lindqvist,t@hollin.example\n`);
  expect(await inspect('really-a-table.pdf')).toMatchObject({
    rows: 1,
    unread: 1,
    issues: [{ line: 2, code: 'cell-too-long' }],
  });
  write('wide-enough.csv', `${Array.from({ length: 500 }, (_, i) => `c${i}`).join(',')}\n${'x,'.repeat(499)}x\n`);
  expect((await inspect('wide-enough.csv')).columns).toHaveLength(500);
});

test('a workbook is read as what it shows: dates, formulas, links, other sheets', async () => {
  const book = new ExcelJS.Workbook();
  book.addWorksheet('Notes').addRow(['not', 'this']);
  const sheet = book.addWorksheet('Members');
  sheet.addRow(['Name', 'Email', 'Visited', 'Sum']);
  sheet.addRow([
    'Aoife Brannagh',
    { text: 'aoife@sorrelhill.example', hyperlink: 'mailto:aoife@sorrelhill.example' },
    new Date(Date.UTC(2026, 2, 14)),
    { formula: '1+1', result: 2 },
  ]);
  await book.xlsx.writeFile(join(dir, 'members.xlsx'));
  const found = await inspectFile(
    db,
    { file: join(dir, 'members.xlsx'), name: 'members.xlsx', said: { sheet: 'Members' }, mapped: null, jobId: null },
    NO_LISTS,
  );
  expect(found.sheets).toEqual(['Notes', 'Members']);
  expect(found.preview).toEqual([['Aoife Brannagh', 'aoife@sorrelhill.example', '2026-03-14', '2']]);
});
