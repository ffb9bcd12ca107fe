import { SMTPServer, type SMTPServerAddress, type SMTPServerSession } from 'smtp-server';
import type { CallLog, Scenario } from '../kit/call-log';
import { PROVIDERS } from '../dns/dns';
import { mailboxAt, type Mailbox } from '../world/mailboxes';
import type { World } from '../world/world';

/** A server that says "try later" takes the same question this much later. */
const GREYLIST_MS = 1000;
const SLOW_MS = 900;

interface Reply {
  code: number;
  text: string;
}

/** All mail servers of the world on one port, each with the manner of the firm that is asked about (RFC 5321). */
export async function startSmtp(
  world: World,
  port: number,
  scenario: () => Scenario,
  log: CallLog,
): Promise<{ close: () => void }> {
  const firstAsked = new Map<string, number>();

  function replyTo(email: string): Reply | 'ok' | 'drop' {
    const domain = email.slice(email.lastIndexOf('@') + 1);
    const firm = world.firmByDomain.get(domain);
    if (!firm && !PROVIDERS.has(domain)) return { code: 550, text: '5.7.1 Relaying denied' };
    if (firm?.manner === 'refuse')
      return { code: 554, text: '5.7.1 Service refused, your address has a poor reputation' };
    if (firm?.manner === 'greylist') {
      const first = firstAsked.get(email);
      if (first === undefined) firstAsked.set(email, Date.now());
      if (first === undefined || Date.now() - first < GREYLIST_MS)
        return { code: 451, text: '4.7.1 Greylisted, please try again later' };
    }
    return REPLIES[mailboxAt(world, email)];
  }

  const server: SMTPServer = new SMTPServer({
    name: 'mx.standin.example',
    banner: 'simulated mail server',
    authOptional: true,
    disabledCommands: ['AUTH'],
    disableReverseLookup: true,
    logger: false,
    onConnect(_session, done) {
      if (!scenario().mailSilent) done();
    },
    onRcptTo({ address }: SMTPServerAddress, session: SMTPServerSession, done) {
      const email = address.toLowerCase();
      log.add('smtp', email);
      const reply = replyTo(email);
      const firm = world.firmByDomain.get(email.slice(email.lastIndexOf('@') + 1));
      setTimeout(
        () => {
          if (reply === 'ok') done();
          else if (reply === 'drop') connectionOf(server, session.id)?.close();
          else done(Object.assign(new Error(reply.text), { responseCode: reply.code }));
        },
        firm?.manner === 'slow' ? SLOW_MS : 0,
      );
    },
    onData(stream, _session, done) {
      stream.resume();
      stream.on('end', () =>
        done(Object.assign(new Error('5.7.1 This stand-in takes no mail'), { responseCode: 554 })),
      );
    },
  });
  server.on('error', () => undefined);
  await new Promise<void>((resolve, reject) => {
    server.server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
  return { close: () => void server.close() };
}

const REPLIES: Record<Mailbox, Reply | 'ok' | 'drop'> = {
  open: 'ok',
  any: 'ok',
  none: { code: 550, text: '5.1.1 No such mailbox here' },
  full: { code: 452, text: '4.2.2 Mailbox full' },
  unsure: 'drop',
};

const connectionOf = (server: SMTPServer, id: string) =>
  [...(server as unknown as { connections: Set<{ id: string; close: () => void }> }).connections].find(
    (connection) => connection.id === id,
  );
