import { createServer as createHttp } from 'node:http';
import { createServer } from 'node:net';
import type { AddressInfo } from 'node:net';
import { buyAddress, findAddress, FinderDown } from './finder/finder';
import { probeMailbox, stateOf } from './mail/probe';
import { paced } from './wrap/pace';

const never = new AbortController().signal;
const listen = (server: {
  listen: (port: number, host: string, done: () => void) => unknown;
  address: () => unknown;
}) =>
  new Promise<number>((resolve) =>
    server.listen(0, '127.0.0.1', () => resolve((server.address() as AddressInfo).port)),
  );

// RFC 5321 4.2.3 reply codes, RFC 3463 enhanced codes.
test.each([
  [250, '2.1.5 Ok', 'accepted'],
  [550, '5.1.1 No such user', 'no-mailbox'],
  [550, '5.7.1 Blocked', 'refused-us'],
  [452, '4.2.2 Mailbox full', 'full'],
  [552, 'Over quota', 'full'],
  [451, '4.7.1 Greylisted', 'try-later'],
  [421, 'Busy', 'try-later'],
  [554, 'Refused', 'refused-us'],
] as const)('%i %s is %s', (code, text, state) => expect(stateOf({ code, text })).toBe(state));

test('a conversation follows the protocol, sends nothing, and a silent or dropped one is no answer', async () => {
  const heard: string[] = [];
  const server = createServer((socket) => {
    socket.on('error', () => undefined);
    socket.write('220-hello\r\n220 ready\r\n');
    socket.on('data', (data) => {
      const line = data.toString().trim();
      heard.push(line);
      if (line.startsWith('EHLO')) socket.write('250-mx\r\n250 SIZE 1\r\n');
      else if (line.includes('drop@')) socket.destroy();
      else if (!line.includes('silent@')) socket.write('250 ok\r\n');
    });
  });
  const options = { address: '127.0.0.1', port: await listen(server), helo: 'sieve.example', from: '', timeoutMs: 150 };
  expect(await probeMailbox('m@brackenfold.example', options)).toEqual({ state: 'accepted', code: 250 });
  expect(heard.slice(0, 3)).toEqual(['EHLO sieve.example', 'MAIL FROM:<>', 'RCPT TO:<m@brackenfold.example>']);
  expect(heard.join()).not.toContain('DATA');
  expect((await probeMailbox('drop@brackenfold.example', options)).state).toBe('no-answer');
  expect((await probeMailbox('silent@brackenfold.example', options)).state).toBe('no-answer');
  server.close();
});

test('a finder is asked again after 429 and 503, and never above the price that was set', async () => {
  const answers: [number, object][] = [
    [429, {}],
    [503, {}],
    [200, { lookup: 'lk-1', email: 'M@Brackenfold.example', price_cents: 15 }],
    [200, { lookup: 'lk-1', email: 'm@brackenfold.example', price_cents: 16 }],
    [401, {}],
    [200, { bought: true }],
  ];
  const calls: string[] = [];
  const server = createHttp((request, response) => {
    calls.push(`${request.method} ${request.url}`);
    const [status, body] = answers.shift()!;
    response.writeHead(status, { 'content-type': 'application/json', 'retry-after': '0.01' }).end(JSON.stringify(body));
  });
  const finder = {
    id: 'lantern',
    name: 'Lantern',
    url: `http://127.0.0.1:${await listen(server)}`,
    key: 'k',
    priceCents: 15,
    perSecond: 10,
    simulated: true,
  };
  const person = { firstName: 'Maren', lastName: 'Oakhill', domain: 'brackenfold.example' };
  expect(await findAddress(finder, person, never)).toEqual({
    lookup: 'lk-1',
    email: 'm@brackenfold.example',
    priceCents: 15,
  });
  await expect(findAddress(finder, person, never)).rejects.toThrow(FinderDown);
  await expect(findAddress(finder, person, never)).rejects.toMatchObject({ reason: 'it does not accept the key' });
  expect(await buyAddress(finder, 'lk-1', never)).toEqual({ bought: true });
  expect(calls.at(-1)).toBe('PUT /v1/purchases/lk-1');
  server.close();
});

test('pace: calls of one key wait for each other, other keys do not', async () => {
  let clock = 0;
  const turn = paced(() => clock);
  await turn('a', 1000, never);
  await turn('b', 1000, never);
  const waiting = turn('a', 1000, never);
  clock = 1;
  await waiting;
  await expect(turn('a', 0.001, AbortSignal.abort(new Error('stopped')))).rejects.toThrow('stopped');
});
