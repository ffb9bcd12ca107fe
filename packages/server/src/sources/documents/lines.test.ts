import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { linesOf } from './lines';

const dir = mkdtempSync(join(tmpdir(), 'sieve-lines-'));
afterAll(() => rmSync(dir, { recursive: true, force: true }));

async function lines(text: string | Buffer, encoding = 'utf-8'): Promise<[number, string][]> {
  const file = join(dir, 'list');
  writeFileSync(file, text);
  const out: [number, string][] = [];
  for await (const { line, text: one } of linesOf(file, encoding)) out.push([line, one]);
  return out;
}

test('lines end in LF, CRLF or CR, the last one in nothing; blank ones are counted', async () => {
  expect(await lines('a\nb\r\n\r\nc\rd')).toEqual([
    [1, 'a'],
    [2, 'b'],
    [3, ''],
    [4, 'c'],
    [5, 'd'],
  ]);
  expect(await lines('a\n')).toEqual([[1, 'a']]);
  expect(await lines('')).toEqual([]);
  expect(await lines(Buffer.from('Zo\xe9\nb', 'latin1'), 'windows-1252')).toEqual([
    [1, 'Zoé'],
    [2, 'b'],
  ]);
});

test('an end that falls between two reads is one, and a long line costs no more than its length', async () => {
  const READ = 256 * 1024;
  const first = 'x'.repeat(READ - 1);
  expect(await lines(`${first}\r\ny\n`)).toEqual([
    [1, first],
    [2, 'y'],
  ]);
  const many = Array.from({ length: 30 }, () => 'é'.repeat(200_000)).join('\n');
  expect((await lines(many)).map(([, text]) => text.length)).toEqual(Array<number>(30).fill(200_000));
});

test('a line without an end is cut where it is longer than any record, and the one behind it is whole', async () => {
  const endless = `${'x'.repeat(9 * 1024 * 1024)}\nnext\n`;
  expect((await lines(endless)).map(([line, text]) => [line, text.slice(0, 4)])).toEqual([
    [1, 'xxxx'],
    [2, 'next'],
  ]);
});
