// Rows a second and peak memory of reading each format, beside a plain parse by the library that is used, and `sqlite3 .import`.
// npm run bench -- formats [ROWS ...]      100000 without arguments
import { execFileSync, spawnSync } from 'node:child_process';
import { createReadStream, createWriteStream, mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { once } from 'node:events';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import ExcelJS from 'exceljs';
import ICAL from 'ical.js';
import { parse } from 'parse5';
import type { SaidFormat } from '../packages/contract/src/sources';
import { openTable } from '../packages/server/src/sources/table/read-table';
import { writeMessyFile } from './messy-file';

const FORMATS = ['csv', 'xlsx', 'jsonl', 'json', 'vcf', 'html'] as const;
type Format = (typeof FORMATS)[number];
/** What is read as a whole is bounded, and no page is that long. */
const MOST: Partial<Record<Format, number>> = { html: 100_000, json: 500_000 };
const SAID: Partial<Record<Format, SaidFormat>> = { jsonl: { kind: 'objects', lines: true } };
const [how, ...args] = process.argv.slice(2);
const print = (words: string) => process.stdout.write(`${words}\n`);

if (how === 'read' || how === 'plain') await measured(how, args[0] as Format, args[1]!);
else await all([how, ...args].filter((size): size is string => size !== undefined).map(Number));

async function all(given: number[]): Promise<void> {
  print(`${cpus().length} x ${cpus()[0]!.model}, Node ${process.versions.node}`);
  for (const rows of given.length > 0 ? given : [100_000]) {
    const dir = mkdtempSync(join(tmpdir(), 'formats-'));
    try {
      const csv = join(dir, 'list.csv');
      await writeMessyFile(csv, rows);
      const began = performance.now();
      const plain = spawnSync('sqlite3', [join(dir, 'plain.db'), '-cmd', '.mode csv', `.import ${csv} list`]);
      print(`\n${rows.toLocaleString('en')} rows x 12 columns`);
      print('format  MB      seconds    rows/s  peak MB   the library alone');
      if (!plain.error) print(line('sqlite3', csv, rows, (performance.now() - began) / 1000, null, null));
      for (const format of FORMATS) {
        if (rows > (MOST[format] ?? Infinity)) continue;
        const file = join(dir, `list.${format}`);
        await write(format, csv, file);
        const [read, alone] = (['read', 'plain'] as const).map(
          (kind) =>
            JSON.parse(
              execFileSync(process.execPath, [process.argv[1]!, kind, format, file], {
                encoding: 'utf8',
                maxBuffer: 1e8,
              }),
            ) as { seconds: number; peakMb: number; rows: number },
        );
        print(line(format, file, read!.rows, read!.seconds, read!.peakMb, alone!.seconds));
        if (format !== 'csv') rmSync(file);
      }
    } finally {
      rmSync(dir, { recursive: true, force: true });
    }
  }
}

function line(
  name: string,
  file: string,
  rows: number,
  seconds: number,
  peakMb: number | null,
  alone: number | null,
): string {
  const size = (statSync(file).size / 1e6).toFixed(0).padStart(4);
  const rate = Math.round(rows / seconds)
    .toLocaleString('en')
    .padStart(9);
  const peak = (peakMb?.toFixed(0) ?? '').padStart(8);
  const beside = alone === null ? '' : `${alone.toFixed(2)} s, ${(seconds / alone).toFixed(1)} x`;
  return `${name.padEnd(8)}${size} ${seconds.toFixed(2).padStart(11)} ${rate} ${peak}   ${beside}`.trimEnd();
}

async function measured(kind: 'read' | 'plain', format: Format, file: string): Promise<void> {
  const began = performance.now();
  const rows = kind === 'read' ? await read(format, file) : await byLibrary(format, file);
  const seconds = (performance.now() - began) / 1000;
  print(JSON.stringify({ seconds, rows, peakMb: process.resourceUsage().maxRSS / 1024 }));
}

async function read(format: Format, file: string): Promise<number> {
  let rows = 0;
  for await (const some of (await openTable(file, `list.${format}`, SAID[format] ?? {})).rows) rows += some.length;
  return rows;
}

/** The same file by the library alone, without making rows of it. */
async function byLibrary(format: Format, file: string): Promise<number> {
  let rows = 0;
  switch (format) {
    case 'csv':
      for await (const text of createInterface({ input: createReadStream(file) })) rows += text === '' ? 0 : 1;
      return rows;
    case 'xlsx':
      for await (const sheet of new ExcelJS.stream.xlsx.WorkbookReader(file, {}))
        for await (const row of sheet) rows += row ? 1 : 0;
      return rows;
    case 'jsonl':
      for await (const text of createInterface({ input: createReadStream(file) })) {
        JSON.parse(text);
        rows++;
      }
      return rows;
    case 'json':
      return (JSON.parse(readFileSync(file, 'utf8')) as unknown[]).length;
    case 'vcf':
      for (const card of readFileSync(file, 'utf8').split(/(?<=END:VCARD\r\n)/)) {
        ICAL.parse(card);
        rows++;
      }
      return rows;
    case 'html':
      return parse(readFileSync(file, 'utf8')).childNodes.length;
  }
}

/** The rows of a list in another format. */
async function write(format: Format, csv: string, file: string): Promise<void> {
  if (format === 'csv') return;
  const rows: string[][] = [];
  for await (const some of (await openTable(csv, 'list.csv', {})).rows) rows.push(...some.map(({ cells }) => cells));
  const [names = [], ...body] = rows;
  if (format === 'xlsx') {
    const book = new ExcelJS.stream.xlsx.WorkbookWriter({ filename: file });
    const sheet = book.addWorksheet('List');
    for (const cells of rows) sheet.addRow(cells).commit();
    await book.commit();
    return;
  }
  const out = createWriteStream(file);
  const put = async (text: string) => void (out.write(text) || (await once(out, 'drain')));
  const object = (cells: string[]) => JSON.stringify(Object.fromEntries(names.map((name, i) => [name, cells[i]])));
  const td = (cells: string[]) =>
    `<tr>${cells.map((cell) => `<td>${cell.replaceAll('&', '&amp;')}</td>`).join('')}</tr>\n`;
  const card = ([, name = '', title = '', firm = '', , email = '', tel = '']: string[]) =>
    `BEGIN:VCARD\r\nVERSION:4.0\r\nFN:${name}\r\nTITLE:${title}\r\nORG:${firm}\r\nEMAIL:${email}\r\nTEL:${tel}\r\nEND:VCARD\r\n`;
  if (format === 'json') await put('[\n');
  if (format === 'html') await put(`<html><body><table><tr>${names.map((name) => `<th>${name}</th>`).join('')}</tr>`);
  for (const [i, cells] of body.entries())
    await put(
      format === 'jsonl'
        ? `${object(cells)}\n`
        : format === 'json'
          ? `${object(cells)}${i < body.length - 1 ? ',' : ''}\n`
          : format === 'vcf'
            ? card(cells)
            : td(cells),
    );
  if (format === 'json') await put(']\n');
  if (format === 'html') await put('</table></body></html>');
  out.end();
  await once(out, 'finish');
}
