import { createSocket } from 'node:dgram';
import { createServer, type AddressInfo } from 'node:net';
import { settings } from '@sieve/contract';
import { decode, encode } from 'dns-packet';
import { SMTPServer } from 'smtp-server';
import { asking } from './ask';

const never = new AbortController().signal;

type Zone = Record<string, string[] | 'fails'>;

/** A name server over UDP (RFC 1035): `MX name` and `A name` give what the zone says, and nothing else is there. */
async function nameServer(zone: Zone, mail: object = {}) {
  const socket = createSocket('udp4');
  socket.on('message', (asked, { port, address }) => {
    const { id, questions } = decode(asked);
    const [question] = questions!;
    const said = zone[`${question!.type} ${question!.name}`] ?? [];
    const answers =
      said === 'fails'
        ? []
        : said.map((data) =>
            question!.type === 'MX'
              ? { type: 'MX' as const, name: question!.name, data: { exchange: data, preference: 10 } }
              : { type: 'A' as const, name: question!.name, data },
          );
    const SERVFAIL = 2;
    const flags = said === 'fails' ? SERVFAIL : 0;
    socket.send(encode({ type: 'response', id, flags, questions, answers }), port, address);
  });
  await new Promise<void>((resolve) => socket.bind(0, '127.0.0.1', resolve));
  const at = `127.0.0.1:${socket.address().port}`;
  return { ask: asking(settings.parse({ nameServer: at, mail })), close: () => socket.close() };
}

test('a domain whose mail servers have no public address takes no mail; one that could not be found out about may', async () => {
  const { ask, close } = await nameServer({
    'MX inside.example': ['mx.inside.example', 'mx2.inside.example'],
    'A mx.inside.example': ['10.0.0.4'],
    'MX halfway.example': ['mx.inside.example', 'mx.dark.example'],
    'A mx.dark.example': 'fails',
  });
  const mailbox = (domain: string) => ask({ kind: 'mailbox', email: `maren@${domain}` }, never);
  expect(await mailbox('inside.example')).toEqual({ state: 'no-server', code: 0 });
  expect(await mailbox('halfway.example')).toEqual({ state: 'no-answer', code: 0 });
  close();
});

test('without MX a domain’s own address takes its mail; an outage while it is looked for is no answer', async () => {
  const { ask, close } = await nameServer({
    'A firm.example': ['203.0.113.7'],
    'A dark.example': 'fails',
  });
  const hosts = (domain: string) => ask({ kind: 'mail-host', domain }, never);
  expect(await hosts('firm.example')).toEqual({ state: 'hosts', hosts: ['firm.example'] });
  expect(await hosts('dark.example')).toEqual({ state: 'failed' });
  expect(await hosts('nothing.example')).toEqual({ state: 'none' });
  close();
});

test('when no mail server can be connected to, that is said at once and nobody else is tried; one that can be ends the doubt', async () => {
  const firms = Array.from({ length: 12 }, (_, i) => `firm${i}.example`);
  const zone = Object.fromEntries(
    firms.flatMap((firm) => [
      [`MX ${firm}`, [`mx.${firm}`]],
      [`A mx.${firm}`, ['127.0.0.1']],
    ]),
  );
  // A port that was free a moment ago refuses.
  const server = createServer((socket) => socket.end('554 not today\r\n'));
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  await new Promise((closed) => server.close(closed));
  const { ask, close } = await nameServer(zone, { port, simulated: true, perServerPerSecond: 1000 });
  const states: string[] = [];
  for (const firm of firms) {
    const asked = ask({ kind: 'mailbox', email: `maren@${firm}` }, never);
    states.push(
      await asked.then(
        (answer) => (answer as { state: string }).state,
        (error: Error) => error.message,
      ),
    );
  }
  expect(states.slice(0, 7)).toEqual(Array(7).fill('no-answer'));
  expect(states.slice(7).every((said) => said.includes(`port ${port} is probably closed`))).toBe(true);
  close();

  await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve));
  const open = await nameServer(zone, { port, simulated: true, perServerPerSecond: 1000 });
  expect(await open.ask({ kind: 'mailbox', email: 'maren@firm0.example' }, never)).toMatchObject({
    state: 'refused-us',
  });
  await new Promise((closed) => server.close(closed));
  for (const firm of firms.slice(1))
    expect(await open.ask({ kind: 'mailbox', email: `maren@${firm}` }, never)).toMatchObject({ state: 'no-answer' });
  open.close();
});

test.each([
  ['takes all', () => 250, 'catch-all'],
  ['refuses what looks made up', (local: string) => (/^[0-9a-f]+$/.test(local) ? 550 : 250), 'catch-all'],
  ['takes only whom it knows', () => 550, 'selective'],
  ['puts off', () => 451, 'try-later'],
  ['refuses us', () => 554, 'unclear'],
] as const)(
  'whether a server takes mail for anybody is asked with what nobody has, however it looks: one that %s',
  async (_, replyTo, state) => {
    const server = new SMTPServer({
      disabledCommands: ['AUTH', 'STARTTLS'],
      authOptional: true,
      disableReverseLookup: true,
      onRcptTo({ address }, _session, done) {
        const code = replyTo(address.slice(0, address.indexOf('@')));
        done(code === 250 ? null : Object.assign(new Error('no'), { responseCode: code }));
      },
    });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const { port } = server.server.address() as AddressInfo;
    const { ask, close } = await nameServer(
      { 'MX firm.example': ['mx.firm.example'], 'A mx.firm.example': ['127.0.0.1'] },
      { port, simulated: true, perServerPerSecond: 1000 },
    );
    expect(await ask({ kind: 'catch-all', domain: 'firm.example' }, never)).toEqual({ state });
    close();
    await new Promise<void>((closed) => server.close(closed));
  },
);
