import type { Inspection, SourceRow } from '@sieve/contract';
import { harness } from '../testing/harness';

jest.setTimeout(60_000);
let server: Awaited<ReturnType<typeof harness>>;
beforeAll(async () => (server = await harness()));
afterAll(() => server.close());

test('what could not be read is downloaded whole, mended, brought in again, and closes its gap; taken back, it is open again', async () => {
  const { body: job } = await server.call<{ id: number }>('POST', '/api/jobs', { name: 'Gap' });
  const long = 'x'.repeat(33_000);
  await server.bring(
    job.id,
    'list.csv',
    `Name,Email\nMaren Oakhill,maren@a.example\nPiers Venn,${long}\nRhona Holm,r@a.example\n"Torn off\n`,
  );
  const sources = async () =>
    (await server.call<SourceRow[]>('GET', `/api/jobs/${job.id}/sources`)).body.map(({ rows, unread }) => [
      rows,
      unread,
    ]);
  expect(await sources()).toEqual([[2, 2]]);
  const { payload, headers } = await server.app.inject({
    url: `/api/jobs/${job.id}/sources/1/gap`,
    headers: { host: '127.0.0.1' },
  });
  expect(headers['content-type']).toContain('text/csv');
  const lines = payload.replace('\uFEFF', '').split('\r\n');
  expect(lines[0]).toBe('Gap line of source 1,What happened,Name,Email');
  expect(lines[1]).toBe(`3,"a cell holds more than 32,767 characters",Piers Venn,${long}`);
  const mended = `${lines[0]}\r\n3,,Piers Venn,piers@a.example\r\n5,,Torn Off,t@a.example\r\n`;
  const found = (await server.bring(job.id, 'mended.csv', mended)) as unknown as Inspection;
  expect(found.mapping.map(({ target }) => target)).toEqual(['skip', 'skip', 'fullName', 'email']);
  expect(await sources()).toEqual([
    [2, 0],
    [2, 0],
  ]);
  await server.undo(job.id);
  expect(await sources()).toEqual([
    [2, 2],
    [2, 0],
  ]);
});
