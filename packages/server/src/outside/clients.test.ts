import { createServer as createHttp } from 'node:http';
import { createServer } from 'node:net';
import type { AddressInfo } from 'node:net';
import { settings } from '@sieve/contract';
import { asking } from './ask';
import { buyAddress, findAddress, ownerOf } from './finder/finder';
import { ServiceDown } from './wrap/service-down';
import { mailProbe, stateOf } from './mail/probe';
import { isPublic } from './wrap/guard';
import { paced } from './wrap/pace';
import { retryAfterMs } from './wrap/retry-after';

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
  const ask = mailProbe();
  const probe = (email: string) => ask(email, options, never);
  expect(await probe('m@brackenfold.example')).toEqual({ state: 'accepted', code: 250 });
  expect(heard.slice(0, 3)).toEqual(['EHLO sieve.example', 'MAIL FROM:<>', 'RCPT TO:<m@brackenfold.example>']);
  expect(heard.join()).not.toContain('DATA');
  expect((await probe('drop@brackenfold.example')).state).toBe('no-answer');
  expect((await probe('silent@brackenfold.example')).state).toBe('no-answer');
  server.close();
});

test('a server that talks for ever, or a byte at a time, is hung up on; a stop ends the conversation', async () => {
  const talk: Record<string, (write: (text: string) => void) => void> = {
    endless: (write) => write('220-more\r\n'.repeat(2000)),
    dripping: (write) => write('2'),
  };
  for (const [how, chunk] of Object.entries(talk)) {
    const server = createServer((socket) => {
      socket.on('error', () => undefined);
      const timer = setInterval(() => chunk((text) => socket.write(text)), 20);
      socket.on('close', () => clearInterval(timer));
    });
    const options = { address: '127.0.0.1', port: await listen(server), helo: 'x', from: '', timeoutMs: 100 };
    const from = performance.now();
    expect([how, (await mailProbe()('m@brackenfold.example', options, never)).state]).toEqual([how, 'no-answer']);
    expect(performance.now() - from).toBeLessThan(2000);
    const stop = new AbortController();
    const stopped = mailProbe()('m@brackenfold.example', { ...options, timeoutMs: 60_000 }, stop.signal);
    stop.abort(new Error('stopped'));
    await expect(stopped).rejects.toThrow('stopped');
    server.close();
  }
});

// IANA IPv4 and IPv6 Special-Purpose Address Registries.
test.each([
  ['127.0.0.1', '10.1.2.3', '172.16.0.1', '192.168.1.1', '169.254.169.254', '0.0.0.0', '100.64.0.1', '224.0.0.1'],
  ['::1', '::', 'fe80::1', 'fc00::1', '::ffff:127.0.0.1', '::ffff:10.0.0.1', 'ff02::1', 'nonsense'],
])('%s and its like are not connected to', (...addresses) => expect(addresses.filter(isPublic)).toEqual([]));
test('public addresses are', () => expect(['9.9.9.9', '2620:fe::fe', '::ffff:9.9.9.9'].every(isPublic)).toBe(true));

test('Retry-After is seconds or a date', () => {
  const now = Date.parse('2026-11-26T12:00:00Z');
  const said = (value?: string) =>
    retryAfterMs(new Headers(value === undefined ? {} : { 'retry-after': value }), 500, now);
  expect([
    said(),
    said('2'),
    said('Thu, 26 Nov 2026 12:00:05 GMT'),
    said('Thu, 26 Nov 2026 11:00:00 GMT'),
    said('soon'),
    said('9999'),
  ]).toEqual([500, 2000, 5000, 0, 500, 30_000]);
});

test('a finder is asked again after 503, and never above the price that was set', async () => {
  const answers: [number, object][] = [
    [503, {}],
    [200, { lookup: 'lk-1', email: 'M@Brackenfold.example', price_cents: 15 }],
    [200, { lookup: 'lk-1', email: 'm@brackenfold.example', price_cents: 16 }],
    [401, {}],
    [200, { bought: true }],
  ];
  const calls: string[] = [];
  const server = createHttp((request, response) => {
    calls.push(`${request.method} ${request.url} ${String(request.headers['idempotency-key'] ?? '')}`.trim());
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
    capDayCents: 0,
    capMonthCents: 0,
    simulated: true,
    pays: 'valid' as const,
    plan: { credits: 0, cents: 0 },
  };
  const asked = { firstName: 'Maren', lastName: 'Oakhill', domain: 'brackenfold.example' };
  expect(await findAddress(finder, asked, 'q-1', never)).toEqual({
    lookup: 'lk-1',
    email: 'm@brackenfold.example',
    priceCents: 15,
    pays: 'valid',
  });
  await expect(findAddress(finder, asked, 'q-1', never)).rejects.toThrow(ServiceDown);
  await expect(findAddress(finder, asked, 'q-1', never)).rejects.toMatchObject({
    reason: 'it does not accept the key',
  });
  expect(await buyAddress(finder, 'lk-1', never)).toEqual({ bought: true });
  expect([calls[0], calls.at(-1)]).toEqual(['POST /v1/lookups q-1', 'PUT /v1/purchases/lk-1']);
  const said = { first_name: 'Maren', last_name: 'Oakhill' };
  answers.push([200, { person: said, price_cents: 0, credits: 1 }], [200, { person: null, price_cents: 15 }]);
  const whose = () => ownerOf(finder, 'm@brackenfold.example', 'q-2', never);
  const person = { firstName: 'Maren', lastName: 'Oakhill', title: '', company: '' };
  expect(await whose()).toEqual({ person, priceCents: 0, pays: 'valid', credits: 1 });
  expect(await whose()).toEqual({ person: null, priceCents: 15, pays: 'valid' });
  expect(calls.at(-1)).toBe('POST /v1/people q-2');
  server.close();
});

test('pace: calls of one key wait for each other, other keys do not', async () => {
  let clock = 0;
  const { turn, hold } = paced(() => clock);
  await turn('a', 1000, never);
  await turn('b', 1000, never);
  const waiting = turn('a', 1000, never);
  clock = 1;
  await waiting;
  await expect(turn('a', 0.001, AbortSignal.abort(new Error('stopped')))).rejects.toThrow('stopped');
  expect(hold('b', 300)).toBe(300);
  clock = 400;
  await turn('b', 1000, never);
});

test('what was missed of a pace while nothing ran is not made up for all at once', async () => {
  let clock = 0;
  const { turn } = paced(() => clock);
  const came: number[] = [];
  const all = Array.from({ length: 200 }, () => turn('a', 100, never).then(() => came.push(clock)));
  // Two seconds pass in one go: with 10 ms between turns no more than those of the last 50 ms come together.
  clock = 2000;
  for (; came.length < 200; clock += 1) await new Promise((resolve) => setTimeout(resolve));
  await Promise.all(all);
  expect(came.filter((at) => at < 2010).length).toBeLessThan(10);
});

test('a service that is asked too fast holds everybody up for as long as it says, and is not down', async () => {
  const at: number[] = [];
  let refusals = 3;
  const server = createHttp((_, response) => {
    at.push(performance.now());
    const [status, body] = refusals-- > 0 ? [429, {}] : [200, { phones: [], price_cents: 0 }];
    response.writeHead(status, { 'content-type': 'application/json', 'retry-after': '0.3' }).end(JSON.stringify(body));
  });
  const service = {
    ...{ id: 'chime', name: 'Chime', url: `http://127.0.0.1:${await listen(server)}`, key: 'k', priceCents: 0 },
    ...{ perSecond: 1000, pays: 'answer' },
  };
  const heard: string[] = [];
  const ask = asking(settings.parse({ phoneServices: [service] }), ({ outage }) => heard.push(outage));
  const question = (n: number) =>
    ({ kind: 'phones', service: 'chime', firstName: 'Maren', lastName: 'Oakhill', address: `${n} Mill Lane` }) as const;
  await Promise.all([1, 2, 3, 4, 5].map((n) => ask(question(n), never)));
  expect([at.length, heard]).toEqual([8, ['', '', '', '', '']]);
  // All that were on their way were refused or answered; after that nobody asked for 0.3 s.
  expect(Math.max(...at.slice(1).map((time, i) => time - at[i]!))).toBeGreaterThan(250);
  server.close();
});
