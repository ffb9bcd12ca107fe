import { connect, type Socket } from 'node:net';
import { createInterface } from 'node:readline';
import type { AnswerOf } from '@sieve/core';

export interface ProbeOptions {
  address: string;
  port: number;
  /** The name given with EHLO. */
  helo: string;
  /** Return path given with MAIL FROM; '' is the null path. */
  from: string;
  /** For each reply; the whole conversation has three times as long. */
  timeoutMs: number;
}

/** More than the longest conversation needs: replies are lines of at most 512 octets (RFC 5321, 4.5.3.1.5). */
const MOST_BYTES = 64 * 1024;

interface Reply {
  code: number;
  text: string;
}

/**
 * Asks a mail server whether it would take mail for an address: EHLO, MAIL FROM, RCPT TO, then QUIT without sending
 * anything (RFC 5321). A dropped, silent, endless or garrulous connection is `no-answer`. Rejects when the signal says stop.
 */
export async function probeMailbox(
  email: string,
  options: ProbeOptions,
  signal: AbortSignal,
): Promise<AnswerOf<'mailbox'>> {
  signal.throwIfAborted();
  const socket = connect({ host: options.address, port: options.port });
  socket.on('error', () => socket.destroy());
  const hangUp = () => socket.destroy(new Error('hung up'));
  socket.setTimeout(options.timeoutMs, hangUp);
  const deadline = setTimeout(hangUp, options.timeoutMs * 3);
  signal.addEventListener('abort', hangUp, { once: true });
  let bytes = 0;
  socket.on('data', (chunk: Buffer) => {
    bytes += chunk.length;
    if (bytes > MOST_BYTES) hangUp();
  });
  try {
    const say = conversation(socket);
    const greeting = await say();
    if (greeting.code !== 220) return byGreeting(greeting);
    let hello = await say(`EHLO ${options.helo}`);
    if (hello.code >= 500) hello = await say(`HELO ${options.helo}`);
    if (hello.code !== 250) return byGreeting(hello);
    const from = await say(`MAIL FROM:<${options.from}>`);
    if (from.code !== 250) return byGreeting(from);
    const rcpt = await say(`RCPT TO:<${email}>`);
    socket.write('QUIT\r\n');
    return { state: stateOf(rcpt), code: rcpt.code };
  } catch {
    signal.throwIfAborted();
    return { state: 'no-answer', code: 0 };
  } finally {
    clearTimeout(deadline);
    signal.removeEventListener('abort', hangUp);
    socket.end();
    socket.destroySoon();
  }
}

const byGreeting = ({ code }: Reply): AnswerOf<'mailbox'> => ({
  state: code >= 400 && code < 500 ? 'try-later' : 'refused-us',
  code,
});

/** What a reply to RCPT means; the enhanced code (RFC 3463) decides where there is one. */
export function stateOf({ code, text }: Reply): AnswerOf<'mailbox'>['state'] {
  const enhanced = /^([245])\.(\d{1,3})\.(\d{1,3})/.exec(text);
  const detail = enhanced ? `${enhanced[2]}.${enhanced[3]}` : '';
  if (code >= 200 && code < 300) return 'accepted';
  if (detail === '2.2' || code === 552 || code === 452) return 'full';
  if (code >= 400 && code < 500) return 'try-later';
  if (enhanced?.[2] === '7' || code === 554 || code === 530) return 'refused-us';
  return 'no-mailbox';
}

/** Sends a line and waits for the whole reply, all lines of it; without a line, waits for the greeting. */
function conversation(socket: Socket): (line?: string) => Promise<Reply> {
  const lines = createInterface({ input: socket, crlfDelay: Infinity })[Symbol.asyncIterator]();
  return async (line) => {
    if (line !== undefined) socket.write(`${line}\r\n`);
    const texts: string[] = [];
    for (;;) {
      const next = await lines.next();
      if (next.done) throw new Error('closed');
      const found = /^(\d{3})([ -]?)(.*)$/.exec(next.value);
      if (!found) throw new Error('not a reply');
      texts.push(found[3]!);
      if (found[2] !== '-') return { code: Number(found[1]), text: texts[0]! };
    }
  };
}
