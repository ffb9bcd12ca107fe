import { createServer, type AddressInfo, type Server, type Socket } from 'node:net';
import { SMTPServer } from 'smtp-server';
import { mailProbe } from './probe';

const never = new AbortController().signal;
const servers: Server[] = [];
const sockets: Socket[] = [];
afterAll(() => {
  servers.forEach((server) => server.close());
  sockets.forEach((socket) => socket.destroy());
});

async function at(server: Server) {
  servers.push(server.on('connection', (socket: Socket) => sockets.push(socket)));
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  return { address: '127.0.0.1', port, helo: 'sieve.example', from: '', timeoutMs: 2000 };
}

/** A server by another hand (npm smtp-server), which offers STARTTLS. */
async function mailServer() {
  const connections: boolean[] = [];
  const mail = new SMTPServer({
    authOptional: true,
    disableReverseLookup: true,
    logger: false,
    onRcptTo({ address }, { secure, envelope }, done) {
      if (envelope.rcptTo.length === 0 && !address.startsWith('gone')) connections.push(secure);
      if (address.startsWith('gone')) done(Object.assign(new Error('5.1.1 gone'), { responseCode: 550 }));
      else done();
    },
  });
  mail.on('error', () => undefined);
  return { options: await at(mail.server), connections };
}

/** A server of one's own: what it says to each line, by how many recipients this connection asked about; null hangs up. */
async function saying(reply: (line: string, recipients: number) => string | null) {
  let connections = 0;
  const server = createServer((socket: Socket) => {
    let recipients = 0;
    connections++;
    socket.on('error', () => undefined);
    socket.write('220 ready\r\n');
    socket.on('data', (data) => {
      const line = data.toString().trim();
      if (line.startsWith('RCPT')) recipients++;
      const said = reply(line, recipients);
      if (said === null) socket.destroy();
      else socket.write(`${said}\r\n`);
    });
  });
  return { options: await at(server), connections: () => connections };
}

test('one connection asks about several addresses, under TLS where that is offered', async () => {
  const { options, connections } = await mailServer();
  const probe = mailProbe();
  const states: string[] = [];
  for (let i = 0; i < 90; i++)
    states.push((await probe(`${i % 30 === 7 ? 'gone' : 'm'}${i}@tidewell.example`, options, never)).state);
  expect(states.map((state, i) => (state === 'no-mailbox') === (i % 30 === 7))).toEqual(Array(90).fill(true));
  expect(connections).toEqual([true, true, true]);
});

test.each([
  ['421 4.7.0 too many, good bye', '421 4.7.0 too many, good bye'],
  ['452 4.5.3 too many recipients', '452 4.5.3 too many recipients'],
  ['a closed connection', null],
])('a connection that has had enough (%s) is replaced, and nobody is taken for what it said', async (_, enough) => {
  const { options, connections } = await saying((line, recipients) =>
    recipients > 3 ? enough : line.includes('gone') ? '550 5.1.1 gone' : '250 ok',
  );
  const probe = mailProbe();
  const states: string[] = [];
  for (const name of ['a', 'b', 'gone', 'c', 'd', 'e', 'f'])
    states.push((await probe(`${name}@tidewell.example`, options, never)).state);
  expect(states.map((state) => state === 'accepted')).toEqual([true, true, false, true, true, true, true]);
  expect(connections()).toBe(3);
});

test('whoever refuses many is asked on a new connection, and what a first question hears stands', async () => {
  const { options, connections } = await saying((line) =>
    line.startsWith('RCPT') ? (line.includes('full') ? '452 4.2.2 full' : '550 5.1.1 gone') : '250 ok',
  );
  const probe = mailProbe();
  for (let i = 0; i < 12; i++) expect((await probe(`m${i}@tidewell.example`, options, never)).state).toBe('no-mailbox');
  expect(connections()).toBe(3);
  expect((await mailProbe()('full@tidewell.example', options, never)).state).toBe('full');
});

test('a server whose TLS does not work is asked without', async () => {
  const { options, connections } = await saying((line) =>
    line.startsWith('EHLO')
      ? '250-mx\r\n250 STARTTLS'
      : line === 'STARTTLS'
        ? '220 go on\r\nnot a handshake'
        : '250 ok',
  );
  expect(await mailProbe()('m@tidewell.example', options, never)).toEqual({ state: 'accepted', code: 250 });
  expect(connections()).toBe(2);
});
