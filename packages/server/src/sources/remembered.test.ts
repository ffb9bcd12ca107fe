import type { Inspection, KnownShape } from '@sieve/contract';
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
