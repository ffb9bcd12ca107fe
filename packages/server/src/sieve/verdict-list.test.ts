import { harness } from '../testing/harness';

jest.setTimeout(60_000);

let server: Awaited<ReturnType<typeof harness>>;
beforeAll(async () => (server = await harness()));
afterAll(() => server.close());

test('a list that is only to be verified comes back as it came, every row with its verdict, invalid ones too', async () => {
  const { id } = (await server.call<{ id: number }>('POST', '/api/jobs', { name: 'Verify me' })).body;
  for (const kind of ['match', 'screen', 'append-email']) await server.setUp(id, kind, {}, false);
  const rows = ['1,NOT AN ADDRESS,=1+1', '2,m@brackenfold.example,"a, b"', '3,m@brackenfold.example,twice', '4,,'];
  await server.bring(id, 'members.csv', `No,Mail,Remark\n${rows.join('\n')}\n`);
  const { statusCode, headers, body } = await server.app.inject({
    url: `/api/jobs/${id}/verdicts`,
    headers: { host: '127.0.0.1' },
  });
  expect(statusCode).toBe(200);
  expect(headers['content-disposition']).toContain('Verify%20me%20with%20verdicts.csv');
  expect(body.split('\r\n')).toEqual([
    '\uFEFFNo,Mail,Remark,Address as verified,Verdict,Reason',
    "1,NOT AN ADDRESS,'=1+1,,invalid,not an address",
    '2,m@brackenfold.example,"a, b",m@brackenfold.example,not verified,',
    '3,m@brackenfold.example,twice,m@brackenfold.example,not verified,',
    '4,,,,none,',
    '',
  ]);
});
