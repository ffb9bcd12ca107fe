import type { HeldAlready, LookedUp, SourceRow, TypedContact } from '@sieve/contract';
import { harness } from '../testing/harness';

jest.setTimeout(60_000);
let server: Awaited<ReturnType<typeof harness>>;
beforeAll(async () => (server = await harness()));
afterAll(() => server.close());

test('one contact: read in a signature or a card, told who is held, added, taken back; looked up by website and link', async () => {
  const { body: first } = await server.call<{ id: number }>('POST', '/api/jobs', { name: 'First' });
  const { body: second } = await server.call<{ id: number }>('POST', '/api/jobs', { name: 'Second' });
  await server.bring(
    first.id,
    'list.csv',
    'Name,Title,Company,Email,Profile link,Website\nMaren Oakhill,Owner,Brackenfold,maren@brackenfold.example,https://directory.example/p/7,brackenfold.example\n',
  );
  const read = async (text: string) =>
    (await server.call<TypedContact>('POST', `/api/jobs/${second.id}/contact-text`, { text })).body;
  const contact = await read('Maren Oakhill\nOwner\nmaren@brackenfold.example\nmet at the show');
  expect(contact).toEqual({
    fullName: 'Maren Oakhill',
    title: 'Owner',
    email: 'maren@brackenfold.example',
    note: 'met at the show',
  });
  expect(
    await read('BEGIN:VCARD\nVERSION:3.0\nFN:Piers Venn\nN:Venn;Piers;;;\nORG:Edale\nTEL:0113 496 0001\nEND:VCARD\n'),
  ).toMatchObject({ fullName: 'Piers Venn', company: 'Edale', phone: '0113 496 0001' });

  const { body: held } = await server.call<HeldAlready>('POST', `/api/jobs/${second.id}/contact-held`, contact);
  expect(held).toMatchObject({
    contacts: [{ jobId: first.id, name: 'Maren Oakhill', exportedAt: null }],
    suppressed: false,
  });
  await server.call('POST', `/api/jobs/${second.id}/contacts`, contact);
  await server.idle();
  const sources = async () =>
    (await server.call<SourceRow[]>('GET', `/api/jobs/${second.id}/sources`)).body.map(
      ({ name, rows, origin, out }) => [name, rows, origin.kind, out],
    );
  expect(await sources()).toEqual([['Maren Oakhill', 1, 'typed', false]]);
  expect((await server.call('POST', `/api/jobs/${second.id}/contacts`, { title: 'Owner' })).status).toBe(422);

  const lookUp = async (q: string) =>
    (await server.call<LookedUp>('GET', `/api/look-up?q=${encodeURIComponent(q)}`)).body;
  expect(await lookUp('https://www.brackenfold.example/contact')).toMatchObject({
    about: 'firm',
    key: 'brackenfold.example',
    company: 'Brackenfold',
    contacts: [{ jobId: first.id }, { jobId: second.id }],
  });
  expect(await lookUp('directory.example/p/7/')).toMatchObject({
    about: 'person',
    contacts: [{ name: 'Maren Oakhill' }],
  });
  expect((await server.call('GET', '/api/look-up?q=nothing')).status).toBe(404);
  await server.undo(second.id);
  await server.idle();
  expect(await sources()).toEqual([['Maren Oakhill', 1, 'typed', true]]);
});
