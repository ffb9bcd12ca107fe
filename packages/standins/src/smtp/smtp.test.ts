import { connect } from 'node:net';
import { callLog, PLAIN } from '../kit/call-log';
import { buildWorld, type MailManner, type Worker } from '../world/world';
import { startSmtp } from './smtp';

const PORT = 22_000 + (process.pid % 900);
const world = buildWorld(7);
const scenario = { ...PLAIN };
const log = callLog();
let server: Awaited<ReturnType<typeof startSmtp>>;
beforeAll(async () => (server = await startSmtp(world, PORT, () => scenario, log)));
afterAll(() => server.close());

/** The codes of a whole conversation (RFC 5321), one for each line said; 0 when the server hung up. */
async function converse(lines: string[]): Promise<number[]> {
  const socket = connect(PORT, '127.0.0.1').setEncoding('latin1');
  const codes: number[] = [];
  let text = '';
  const next = () =>
    new Promise<number>((resolve) => {
      const look = () => {
        const end = /^(\d{3}) .*\r\n/m.exec(text);
        if (!end) return false;
        text = text.slice(end.index + end[0].length);
        resolve(Number(end[1]));
        return true;
      };
      if (look()) return;
      const onData = (more: string) => {
        text += more;
        if (look()) socket.off('data', onData);
      };
      socket.on('data', onData).once('close', () => resolve(0));
    });
  codes.push(await next());
  for (const line of lines) {
    socket.write(`${line}\r\n`);
    codes.push(await next());
    if (codes.at(-1) === 0) break;
  }
  socket.destroy();
  return codes;
}
const asked = async (email: string) =>
  (await converse(['EHLO sieve.example', 'MAIL FROM:<>', `RCPT TO:<${email}>`])).at(-1);
const someone = (manner: MailManner, mailbox: Worker['mailbox']) =>
  world.people.find((person) => person.firm.manner === manner && person.mailbox === mailbox)!;

test('a mailbox that is there, is full, or is gone', async () => {
  expect(await asked(someone('plain', 'open').email)).toBe(250);
  expect(await asked(someone('plain', 'full').email)).toBe(452);
  expect(await asked(someone('plain', 'moved').email)).toBe(550);
  expect(await asked(`nobody.at.all@${someone('plain', 'open').firm.domain}`)).toBe(550);
  expect(await asked(`info@${someone('plain', 'open').firm.domain}`)).toBe(250);
  expect(await asked('maren@elsewhere.example')).toBe(550);
});

test('some firms take anything, refuse everybody, hang up, or say to try later', async () => {
  const { firm } = someone('catch-all', 'open');
  expect(await asked(`no-such-name@${firm.domain}`)).toBe(250);
  const wary = world.firms.filter(({ manner }) => manner === 'catch-all');
  const madeUp = await Promise.all(wary.slice(0, 40).map(({ domain }) => asked(`0123456789abcdef@${domain}`)));
  expect(new Set(madeUp)).toEqual(new Set([250, 550]));
  expect(await asked(someone('refuse', 'open').email)).toBe(554);
  expect(await asked(someone('drop', 'open').email)).toBe(0);
  const { email } = someone('greylist', 'open');
  expect(await asked(email)).toBe(451);
  expect(await asked(email)).toBe(451);
  await new Promise((resolve) => setTimeout(resolve, 1100));
  expect(await asked(email)).toBe(250);
});

test('it speaks in order, and takes no mail', async () => {
  const { email } = someone('plain', 'open');
  expect(await converse([`RCPT TO:<${email}>`])).toEqual([220, 503]);
  expect(
    await converse(['EHLO x.example', 'NONSENSE', 'MAIL FROM:<>', `RCPT TO:<${email}>`, 'DATA', 'hello\r\n.']),
  ).toEqual([220, 250, 500, 250, 250, 354, 554]);
  expect(await converse(['EHLO x.example', 'RSET', 'QUIT'])).toEqual([220, 250, 250, 221]);
});

test('what was asked is counted', () => {
  expect(log.counts()['smtp']).toBeGreaterThan(8);
  expect(log.last('smtp')).toContain(someone('drop', 'open').email);
});
