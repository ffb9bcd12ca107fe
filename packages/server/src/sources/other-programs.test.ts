import { readFileSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Inspection, SourceRow } from '@sieve/contract';
import archiver from 'archiver';
import { buffer } from 'node:stream/consumers';
import { seededRandom } from '@sieve/core/text/random';
import type { AppError } from '../errors';
import { harness } from '../testing/harness';
import { workbookRows } from './workbook/read-workbook';
import { unpack } from './unpack';

jest.setTimeout(60_000);
const fixture = (name: string) => join(__dirname, 'fixtures', name);
let server: Awaited<ReturnType<typeof harness>>;
beforeAll(async () => (server = await harness()));
afterAll(() => server.close());

const rowsOf = async (name: string, sheet = '') => {
  const out: string[][] = [];
  let sheets: string[] = [];
  for await (const some of workbookRows(fixture(name), name, sheet, (names) => (sheets = names)))
    out.push(...some.map(({ line, cells }) => [String(line), ...cells]));
  return { sheets, rows: out.filter(([, ...cells]) => cells.some(Boolean)) };
};

// Calc makes numbers of the truth values of a workbook when it saves them as ODS.
test.each([
  ['guild.ods', '1', '0'],
  ['guild.xlsx', 'true', 'false'],
] as const)('%s as another program wrote it: dates, formulas, notes, blank rows, sheets', async (name, yes, no) => {
  const { sheets, rows } = await rowsOf(name);
  expect(sheets).toEqual(['Members', 'Sponsors']);
  expect(rows).toEqual(
    [
      ['1', 'Members of the guild, spring 2026'],
      ['3', 'Contact', '', 'Company'],
      ['4', 'First name', 'Last name', 'Name', 'Town', 'Phone', 'Joined', 'Wheels'],
      ['5', 'Maren', 'Oakhill', 'Brackenfold Dairies', 'Wells', '0113 496 0417', '2026-03-14', '42'],
      ['6', 'Piers', 'Hathersage', 'Edale & Daughters', 'Bakewell', '441134960187', '2025-12-01 09:30:00', '21'],
      ['10', 'Zoé', 'Venn', 'Line one\nLine two', '', '020 7946 0318', '', '0.5'],
    ].map((row) => expect.arrayContaining(row) as unknown),
  );
  expect((await rowsOf(name, 'Sponsors')).rows).toEqual([
    ['1', 'Firm', 'Paid'],
    ['2', 'Ashlar Vats', yes],
    ['3', 'Fernie Salt', no],
  ]);
});

test('an OpenDocument book with bytes overwritten or cut off: its rows, a row that tells the loss, or an error with a code', async () => {
  const whole = readFileSync(fixture('guild.ods'));
  const dir = mkdtempSync(join(tmpdir(), 'ods-'));
  const file = join(dir, 'book.ods');
  let refused = 0;
  for (let seed = 1; seed <= 150; seed++) {
    const random = seededRandom(seed);
    const bytes = Buffer.from(whole.subarray(0, seed % 3 === 0 ? Math.floor(random() * whole.length) : whole.length));
    for (let i = 0; i < 4; i++) bytes[Math.floor(random() * bytes.length)] = Math.floor(random() * 256);
    writeFileSync(file, bytes);
    let rows = 0;
    try {
      for await (const some of workbookRows(file, 'book.ods', '')) rows += some.length;
      expect(rows).toBeGreaterThan(0);
    } catch (error) {
      expect([seed, (error as AppError).code]).toEqual([seed, 'broken-workbook']);
      refused++;
    }
  }
  expect(refused).toBeGreaterThan(30);
  rmSync(dir, { recursive: true });
});

test('two header rows are joined when it is brought in, and both stay out of the rows', async () => {
  const { body: job } = await server.call<{ id: number }>('POST', '/api/jobs', { name: 'Guild' });
  const { body: upload } = await server.call<{ id: string; holds: object[] }>(
    'POST',
    '/api/uploads?name=guild.ods',
    readFileSync(fixture('guild.ods')),
  );
  expect(upload.holds).toEqual([]);
  const { body: found } = await server.call<Inspection>('POST', `/api/uploads/${upload.id}/inspect?name=guild.ods`, {});
  expect(found.format).toMatchObject({ kind: 'workbook', headerRow: 2, joined: true });
  expect(found.mapping.map(({ name, target }) => `${name}: ${target}`)).toEqual([
    'Contact First name: firstName',
    'Contact Last name: lastName',
    'Company Name: company',
    'Company Town: city',
    'Company Phone: phone',
    'Company Joined: own',
    'Company Wheels: own',
  ]);
  await server.call('POST', `/api/jobs/${job.id}/sources?rows=3`, {
    uploadId: upload.id,
    name: found.name,
    format: found.format,
    columns: found.mapping,
  });
  await server.idle();
  const { body: sources } = await server.call<SourceRow[]>('GET', `/api/jobs/${job.id}/sources`);
  expect(sources).toMatchObject([{ rows: 3, unread: 0 }]);
});

const zipOf = async (files: Record<string, string>) => {
  const archive = archiver('zip');
  for (const [name, text] of Object.entries(files)) archive.append(text, { name });
  void archive.finalize();
  return buffer(archive);
};

test('a zip of files is unpacked in its place; a workbook is not; a damaged one is told', async () => {
  const bytes = await zipOf({
    'lists/a.csv': 'Name\nMaren Oakhill\n',
    'b.vcf': 'BEGIN:VCARD\n',
    '__MACOSX/._a.csv': 'x',
    '.hidden': 'x',
  });
  const { body } = await server.call<{ holds: { id: string; name: string }[] }>(
    'POST',
    '/api/uploads?name=lists.zip',
    bytes,
  );
  expect(body.holds.map(({ name }) => name)).toEqual(['a.csv', 'b.vcf']);
  const { body: found } = await server.call<Inspection>(
    'POST',
    `/api/uploads/${body.holds[0]!.id}/inspect?name=a.csv`,
    {},
  );
  expect(found).toMatchObject({ rows: 1, mapping: [{ target: 'fullName' }] });

  const dir = mkdtempSync(join(tmpdir(), 'unpack-'));
  const unpacked = (content: Buffer) => {
    writeFileSync(join(dir, 'in'), content);
    return unpack(join(dir, 'in'), 'in.zip', dir, () => 'part');
  };
  expect(await unpacked(readFileSync(fixture('guild.xlsx')))).toBeNull();
  expect(await unpacked(Buffer.from('Name\n'))).toBeNull();
  await expect(unpacked(bytes.subarray(0, 200))).rejects.toMatchObject({ code: 'broken-zip' });
  await expect(unpacked(await zipOf({ '.only': 'hidden' }))).rejects.toMatchObject({ code: 'empty-file' });
  rmSync(dir, { recursive: true });
});
