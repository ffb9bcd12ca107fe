import type { DecisionRow, Inspection, KnownShape, RowPage, SourceColumns } from '@sieve/contract';
import { harness } from '../testing/harness';

jest.setTimeout(60_000);

let server: Awaited<ReturnType<typeof harness>>;
beforeAll(async () => (server = await harness()));
afterAll(() => server.close());

const LIST = 'Kontakt,Post,Stand\nMaren Oakhill,m@brackenfold.example,A1\n';
async function look(job: number, text: string) {
  const { body: upload } = await server.call<{ id: string }>('POST', '/api/uploads?name=list.csv', text);
  const { body } = await server.call<Inspection>('POST', `/api/uploads/${upload.id}/inspect?name=list.csv`, {
    jobId: job,
  });
  return { upload: upload.id, found: body };
}

test('a mapping corrected by hand is remembered for the next file of the same shape, and for no other', async () => {
  const { body: job } = await server.call<{ id: number }>('POST', '/api/jobs', { name: 'J' });
  const { upload, found } = await look(job.id, LIST);
  expect(found.remembered).toBe(false);
  const columns = [
    { name: 'Kontakt', target: 'fullName' },
    { name: 'Post', target: 'email' },
    { name: 'Stand', target: 'note' },
  ];
  await server.call('POST', `/api/jobs/${job.id}/sources?rows=1`, {
    uploadId: upload,
    name: 'list.csv',
    format: found.format,
    columns,
  });
  await server.idle();
  const again = await look(job.id, LIST.replace('A1', 'B2'));
  expect(again.found).toMatchObject({ remembered: true, mapping: columns, held: { thisJob: 1, fresh: 0 } });
  expect((await look(job.id, LIST.replace('Stand', 'Booth'))).found.remembered).toBe(false);

  const shapes = async () => (await server.call<KnownShape[]>('GET', '/api/shapes')).body;
  expect(await shapes()).toMatchObject([{ columns }]);
  await server.call('POST', '/api/shapes', { columns: [...columns.slice(0, 2), { name: 'Stand', target: 'skip' }] });
  expect((await look(job.id, LIST)).found.mapping[2]).toEqual({ name: 'Stand', target: 'skip' });
  await server.call('POST', '/api/shapes/forget', { shape: (await shapes())[0]!.shape });
  expect(await shapes()).toEqual([]);
  expect((await look(job.id, LIST)).found.remembered).toBe(false);
});

test('the columns of a source that came in are read anew by a decision, which can be taken back and holds for the next file', async () => {
  const { body: job } = await server.call<{ id: number }>('POST', '/api/jobs', { name: 'Anew' });
  const text = 'Who,Where they sit,Code\nMaren Oakhill,Head of Quality,A1\nIdris Venn,Owner,B2\n';
  const { upload, found } = await look(job.id, text);
  const asCame = [
    { name: 'Who', target: 'fullName' },
    { name: 'Where they sit', target: 'city' },
    { name: 'Code', target: 'skip' },
  ];
  const { body: source } = await server.call<{ sourceId: number }>('POST', `/api/jobs/${job.id}/sources?rows=2`, {
    uploadId: upload,
    name: 'list.csv',
    format: found.format,
    columns: asCame,
  });
  await server.idle();
  const of = `/api/jobs/${job.id}`;
  const rows = async () => (await server.call<RowPage>('GET', `${of}/rows?step=match&fate=pass`)).body.rows;
  expect((await rows())[0]).toMatchObject({ place: 'Head of Quality', title: '' });
  const { body: seen } = await server.call<SourceColumns>('GET', `${of}/sources/${source.sourceId}/columns`);
  expect(seen).toMatchObject({ mapping: asCame, columns: [{ samples: ['Maren Oakhill', 'Idris Venn'] }, {}, {}] });

  const columns = [
    asCame[0]!,
    { name: 'Where they sit', target: 'title' },
    { name: 'Code', target: 'own', own: 'Hall' },
    { name: 'Hall, 1', target: 'own', from: { kind: 'part', column: 2, by: { how: 'pattern', text: '*1' }, part: 0 } },
  ];
  const decide = (columns: object[]) =>
    server.call<DecisionRow>('POST', `${of}/decisions`, {
      body: { kind: 'columns', sourceId: source.sourceId, columns },
    });
  expect((await decide(columns.slice(1))).status).toBe(400);
  expect((await decide(columns.map((column) => ({ ...column, target: 'note' })))).status).toBe(422);
  const { body: said } = await decide(columns);
  await server.idle();
  expect(await rows()).toMatchObject([{ title: 'Head of Quality', place: '' }, { title: 'Owner' }]);
  const own = (await server.call<{ name: string }[]>('GET', `${of}/own-fields`)).body.map(({ name }) => name);
  expect(own).toEqual(['Hall', 'Hall, 1']);
  expect((await look(job.id, text)).found).toMatchObject({ remembered: true, mapping: columns });

  await server.call('POST', `/api/decisions/${said.id}`, { undone: true });
  await server.idle();
  expect((await rows())[0]).toMatchObject({ place: 'Head of Quality', title: '' });
});
