import { createHash } from 'node:crypto';
import type { ExportLayout, ExportPreview, ExportRun } from '@sieve/contract';
import ExcelJS from 'exceljs';
import Papa from 'papaparse';
import { harness } from '../testing/harness';

jest.setTimeout(60_000);

let server: Awaited<ReturnType<typeof harness>>;
let job: number;
beforeAll(async () => {
  server = await harness();
  job = (await server.call<{ id: number }>('POST', '/api/jobs', { name: 'Mail-out, autumn' })).body.id;
  for (const id of ['append-email', 'verify']) await server.setUp(job, id, {}, false);
  const lines = Array.from({ length: 25 }, (_, i) => `Maren Oakhill${i},maren${i}@brackenfold${i}.example,"=1+${i}"`);
  await server.bring(job, 'list.csv', `Name,Email,Remark\n${lines.join('\n')}\n`);
});
afterAll(() => server.close());

const layout = (more: Partial<ExportLayout> = {}): ExportLayout => ({
  columns: [
    { field: 'lastName', heading: 'Last name' },
    { field: 'email', heading: '@Email' },
    { field: 'note', heading: 'Remark' },
    { field: 'own:Remark', heading: 'Own' },
  ],
  verdicts: ['none', 'valid', 'risky', 'unknown'],
  onlyNew: true,
  form: 'csv',
  rowsEach: 10,
  pattern: '{job}-{n}',
  ...more,
});
const run = async (more: Partial<ExportLayout> = {}) => {
  const { body } = await server.call<{ exportId: number; code?: string }>(
    'POST',
    `/api/jobs/${job}/exports`,
    layout(more),
  );
  await server.idle();
  return body;
};
const file = async (id: number, name: string) =>
  (await server.app.inject({ url: `/api/exports/${id}/files/${name}`, headers: { host: '127.0.0.1' } })).rawPayload;

test('the preview shows the real first rows and files; what went is remembered and not sent twice', async () => {
  const { body: preview } = await server.call<ExportPreview>('POST', `/api/jobs/${job}/exports/preview`, layout());
  expect(preview).toMatchObject({
    rows: 25,
    files: [{ name: 'mail-out-autumn-1.csv', rows: 10 }, { rows: 10 }, { rows: 5 }],
    heldBack: { exportedBefore: 0 },
  });
  expect(preview.first).toHaveLength(12);
  const { exportId } = await run();
  const [done] = (await server.call<ExportRun[]>('GET', `/api/jobs/${job}/exports`)).body;
  expect(done).toMatchObject({ id: exportId, rows: 25, files: { length: 3 } });
  const read = [];
  for (const { name, rows } of done!.files) {
    const text = (await file(exportId, name)).toString('utf8');
    expect(text.startsWith('\uFEFF')).toBe(true);
    const table = Papa.parse<string[]>(text.slice(1).trim()).data;
    // OWASP, CSV Injection: headings and cells.
    expect(table[0]![1]).toBe("'@Email");
    expect(table).toHaveLength(rows + 1);
    read.push(...table.slice(1));
  }
  expect(new Set(read.map((row) => row[1])).size).toBe(25);
  expect(read.every((row) => [row[2], row[3]].some((cell) => /^'=1\+\d+$/.test(cell!)))).toBe(true);
  const manifest = JSON.parse((await file(exportId, 'manifest.json')).toString()) as {
    files: { contacts: { email: string }[]; sha256: string }[];
  };
  expect(manifest.files.flatMap(({ contacts }) => contacts.map(({ email }) => email)).sort()).toEqual(
    read.map((row) => row[1]).sort(),
  );
  expect((await run()).code).toBe('nothing-to-export');
  const again = await server.call<ExportPreview>(
    'POST',
    `/api/jobs/${job}/exports/preview`,
    layout({ onlyNew: false }),
  );
  expect(again.body).toMatchObject({ rows: 25 });
});

test('a workbook holds text cells only', async () => {
  const { exportId } = await run({ onlyNew: false, form: 'xlsx', rowsEach: 0, pattern: 'all {date}' });
  const [done] = (await server.call<ExportRun[]>('GET', `/api/jobs/${job}/exports`)).body;
  expect(done!.files).toHaveLength(1);
  const book = new ExcelJS.Workbook();
  await book.xlsx.load((await file(exportId, done!.files[0]!.name)) as unknown as ArrayBuffer);
  const sheet = book.worksheets[0]!;
  expect(sheet.rowCount).toBe(26);
  sheet.eachRow((row) => row.eachCell((cell) => expect(cell.type).toBe(ExcelJS.ValueType.String)));
});

test('only files of the export are given out', async () => {
  const { exportId } = await run({ onlyNew: false });
  for (const name of ['..%2F..%2Fsieve.db', 'sieve.db', 'other.csv']) {
    const answer = await server.app.inject({
      url: `/api/exports/${exportId}/files/${name}`,
      headers: { host: '127.0.0.1' },
    });
    expect(answer.statusCode).toBe(404);
  }
  const zip = await server.app.inject({ url: `/api/exports/${exportId}/zip`, headers: { host: '127.0.0.1' } });
  expect(zip.rawPayload.subarray(0, 2).toString()).toBe('PK');
});

test('a job with a long name: every file of the manifest is on the disk, each with its own rows', async () => {
  const name = 'Cheese makers and their dairies, '.repeat(6);
  const { id } = (await server.call<{ id: number }>('POST', '/api/jobs', { name })).body;
  for (const step of ['append-email', 'verify']) await server.setUp(id, step, {}, false);
  const lines = Array.from({ length: 25 }, (_, i) => `Aoife Corrie${i},aoife${i}@mosscross${i}.example`);
  await server.bring(id, 'long.csv', `Name,Email\n${lines.join('\n')}\n`);
  // Asked for twice at once, new ones only: whichever comes second finds that they have left.
  await Promise.all([1, 2].map(() => server.call('POST', `/api/jobs/${id}/exports`, layout())));
  await server.idle();
  const left = (await server.call<ExportRun[]>('GET', `/api/jobs/${id}/exports`)).body.filter(({ rows }) => rows > 0);
  expect(left).toHaveLength(1);
  const [{ id: exportId, rows, files }] = left as [ExportRun];
  expect([rows, new Set(files.map((known) => known.name)).size]).toEqual([25, 3]);
  for (const { name: written, sha256, rows: count } of files) {
    const bytes = await file(exportId, written);
    expect(createHash('sha256').update(bytes).digest('hex')).toBe(sha256);
    expect(Papa.parse(bytes.toString('utf8').trim()).data).toHaveLength(count + 1);
  }
});
