import type { Inspection, RowPage, SourceRow } from '@sieve/contract';
import type { Column } from '@sieve/core';
import { harness } from '../testing/harness';

jest.setTimeout(60_000);
let server: Awaited<ReturnType<typeof harness>>;
beforeAll(async () => (server = await harness()));
afterAll(() => server.close());

const newJob = async (name: string) => (await server.call<{ id: number }>('POST', '/api/jobs', { name })).body.id;
const layout = {
  form: 'csv',
  columns: [{ field: 'email', heading: 'Email' }],
  verdicts: ['valid', 'risky', 'unknown', 'none'],
  rowsEach: 0,
  pattern: 'all',
  onlyNew: false,
};

async function look(job: number, text: string, columns: Column[] | null = null) {
  const { body: upload } = await server.call<{ id: string }>('POST', '/api/uploads?name=list.csv', text);
  const inspect = (more: object) =>
    server.call<Inspection>('POST', `/api/uploads/${upload.id}/inspect?name=list.csv`, {
      jobId: job,
      columns,
      ...more,
    });
  return { upload: upload.id, found: (await inspect({})).body, inspect };
}
async function bringIn(job: number, upload: string, found: Inspection, take: string) {
  const body = { uploadId: upload, name: found.name, format: found.format, columns: found.mapping, take };
  await server.call('POST', `/api/jobs/${job}/sources?rows=${found.rows}`, body);
  await server.idle();
  return (await server.call<SourceRow[]>('GET', `/api/jobs/${job}/sources`)).body.at(-1)!;
}

test('who left with an export of any job is told, and stays out when only the others are wanted', async () => {
  const [first, second] = [await newJob('First'), await newJob('Second')];
  await server.setUp(first, 'append-email', {}, false);
  await server.setUp(first, 'verify', {}, false);
  await server.bring(first, 'a.csv', 'Name,Email\nMaren Oakhill,maren@a.example\nPiers Venn,piers@a.example\n');
  await server.call('POST', `/api/jobs/${first}/exports`, layout);
  await server.idle();
  await server.bring(first, 'b.csv', 'Name,Email\nRhona Holm,rhona@a.example\n');
  const list =
    'Name,Email\nMaren Oakhill,maren@a.example\nRhona Holm,rhona@a.example\nConor Devlin,conor@a.example\nC. Devlin,conor@a.example\n';
  const { upload, found } = await look(second, list);
  expect(found.held).toEqual({ fresh: 2, thisJob: 0, otherJobs: 2, suppressed: 0, exported: 1, twice: 1 });
  expect(found.heldDetails).toMatchObject({ jobs: [{ id: first, name: 'First', rows: 2 }], merges: [] });
  expect(Date.now() - found.heldDetails.lastExportAt!).toBeLessThan(60_000);
  expect(await bringIn(second, upload, found, 'not-exported')).toMatchObject({ rows: 3, unread: 1 });
  const { body: issues } = await server.call<object[]>('GET', `/api/jobs/${second}/sources/${3}/issues`);
  expect(issues).toMatchObject([{ line: 2, code: 'exported-before', kept: false }]);
});

test('what is shown to become of what is held is what becomes of it: fill, overwrite, keep', async () => {
  const head = 'Name,Title,Tel,Email,Town';
  for (const [rule, title, phone] of [
    ['fill', 'Owner', '+441134960417'],
    ['overwrite', 'Technical Manager', '+441134960417'],
    ['keep', 'Owner', ''],
  ] as const) {
    const job = await newJob(rule);
    await server.bring(job, 'held.csv', `${head}\nMaren Oakhill,Owner,,maren@a.example,Wells\n`);
    const list = `${head}\nMaren Oakhill,Technical Manager,0113 496 0417,maren@a.example,\n`;
    const { found } = await look(job, list);
    const columns = found.mapping.map((column) =>
      ['title', 'phone'].includes(column.target) ? { ...column, held: rule } : column,
    );
    const { upload, found: ruled } = await look(job, list, columns);
    const [merge] = ruled.heldDetails.merges;
    const then = Object.fromEntries(merge!.fields.map((field) => [field.field, field.then]));
    expect([rule, merge!.name, then['title'], then['phone'] ?? '']).toEqual([rule, 'Maren Oakhill', title, phone]);
    await bringIn(job, upload, ruled, 'all');
    const { body } = await server.call<RowPage>('GET', `/api/jobs/${job}/rows?step=tidy&fate=pass&offset=0&limit=5`);
    expect(body.rows).toHaveLength(1);
    const { body: contact } = await server.call<{ person: Record<string, string> }>(
      'GET',
      `/api/jobs/${job}/contacts/${body.rows[0]!.id}`,
    );
    expect([rule, contact.person['title'], contact.person['phone'], contact.person['city']]).toEqual([
      rule,
      title,
      phone,
      'Wells',
    ]);
  }
});

test('a file is seen by its beginning, and counted to its end', async () => {
  const job = await newJob('Long');
  const rows = Array.from({ length: 60_000 }, (_, i) => `Maren Oakhill${i},m${i}@a.example`);
  const { inspect, found } = await look(job, `Name,Email\n${rows.join('\n')}\n`);
  expect([found.whole, found.rows]).toEqual([true, 60_000]);
  const { body: beginning } = await inspect({ beginning: true });
  expect([beginning.whole, beginning.rows > 0 && beginning.rows < 60_000]).toEqual([false, true]);
  expect(beginning.mapping).toEqual(found.mapping);
});
