import { createServer, type IncomingMessage } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Search } from '@sieve/core';
import { directoryClient } from './client';
import { ServiceDown } from '../wrap/service-down';

const never = new AbortController().signal;
const search: Search = {
  about: 'people',
  conditions: [
    {
      field: 'title',
      not: true,
      terms: [
        { text: 'quality manager', exact: true },
        { text: 'intern', exact: false },
      ],
    },
    { field: 'years', not: false, ranges: [{ from: null, to: 7 }] },
  ],
};

async function bodyOf(request: IncomingMessage): Promise<Record<string, unknown>> {
  const parts: Buffer[] = [];
  for await (const part of request) parts.push(part as Buffer);
  return JSON.parse(Buffer.concat(parts).toString()) as Record<string, unknown>;
}

/** A directory that answers as it is told, and notes what it was asked. */
async function talkingTo(answers: [status: number, body: object][]) {
  const asked: { path: string; session: unknown; body: Record<string, unknown> }[] = [];
  let signIns = 0;
  const server = createServer((request, response) => {
    void bodyOf(request).then((body) => {
      asked.push({ path: request.url!, session: request.headers['x-session'], body });
      const [status, answer] =
        request.url === '/v1/session' && body['key'] === 'right'
          ? [200, { token: `s${++signIns}`, expires_in: 900 }]
          : request.url === '/v1/session'
            ? [403, {}]
            : answers.shift()!;
      response
        .writeHead(status, { 'content-type': 'application/json', 'retry-after': '0.01' })
        .end(JSON.stringify(answer));
    });
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const client = (key = 'right') => directoryClient({ name: 'Waymark', url, key, perSecond: 1000, simulated: true });
  return { client, asked, close: () => server.close() };
}

test('conditions go over the wire in the directory’s own words, with one sign-in for many questions', async () => {
  const { client, asked, close } = await talkingTo([
    [200, { total: 6214 }],
    [200, { values: [{ value: 'quality', total: 9 }] }],
    [404, {}],
  ]);
  const directory = client();
  expect(await directory.count(search, never)).toBe(6214);
  expect(await directory.facet(search, 'team', never)).toEqual(new Map([['quality', 9]]));
  expect(await directory.facet(search, 'school', never)).toBeNull();
  expect(asked.map(({ path }) => path)).toEqual([
    '/v1/session',
    '/v1/tally/people',
    '/v1/tally/people/by/team',
    '/v1/tally/people/by/school',
  ]);
  expect(asked[1]!.body['where']).toEqual([
    {
      attribute: 'job_title',
      op: 'none_of',
      phrases: [
        { words: 'quality manager', in_order: true },
        { words: 'intern', in_order: false },
      ],
    },
    { attribute: 'years_in_role', op: 'any_of', between: [{ min: null, max: 7 }] },
  ]);
  close();
});

test('an expired sign-in, a pace limit and a failed page are overcome', async () => {
  const row = {
    id: 7,
    name: 'MAREN OAKHILL ★',
    job_title: 'Owner',
    organisation: 'Brackenfold',
    town: 'Wells',
    country: 'GB',
    link: 'https://www.directory.example/p/7/',
    years_in_role: null,
    certificates: [],
  };
  const { client, asked, close } = await talkingTo([
    [401, {}],
    // Asked too fast more often than a failure is tried again.
    ...Array.from({ length: 6 }, (): [number, object] => [429, {}]),
    [503, {}],
    [200, { total: 1, pages: 1, results: [row] }],
  ]);
  const page = await client().page(search, 1, never);
  expect(page.rows[0]).toMatchObject({
    id: 'people-7',
    name: 'MAREN OAKHILL ★',
    place: 'Wells, GB',
    found: { title: 'Owner', years: null, certificate: [] },
  });
  expect(asked.map(({ session }) => session)).toEqual(['', 's1', '', ...Array<string>(8).fill('s2')]);
  close();
});

test('a wrong key, a strange answer and a directory that stays down are told apart', async () => {
  const { client, close } = await talkingTo([
    [200, { sum: 3 }],
    ...Array.from({ length: 5 }, (): [number, object] => [500, {}]),
  ]);
  await expect(client('wrong').count(search, never)).rejects.toMatchObject({ reason: 'it does not accept the key' });
  await expect(client().count(search, never)).rejects.toMatchObject({ reason: 'its answer could not be read' });
  await expect(client().count(search, never)).rejects.toThrow(ServiceDown);
  close();
  await expect(client().count(search, AbortSignal.abort(new Error('stopped')))).rejects.toThrow('stopped');
});
