import { connect, type Socket } from 'node:net';
import { connect as connectSecurely } from 'node:tls';

export interface SessionOptions {
  address: string;
  port: number;
  /** The name given with EHLO. */
  helo: string;
  /** Return path given with MAIL FROM; '' is the null path. */
  from: string;
  /** For each reply; a question, with all that it takes to come to it, has three times as long. */
  timeoutMs: number;
  /** Told when the server could be connected to, whatever it says. */
  onConnect?: () => void;
}

/** A reply of a server: its code, and the text of its first line. */
export interface Reply {
  code: number;
  text: string;
}

/** A mail server that waits for recipients, or what it said in place of that. */
export type Opened = { session: Session } | { refused: Reply };

/** More than the longest conversation needs: replies are lines of at most 512 octets (RFC 5321, 4.5.3.1.5). */
const MOST_BYTES = 64 * 1024;

export interface Session {
  /** Sends a line and waits for the whole reply, all lines of it; without a line, waits for the greeting. Throws when hung up. */
  say: (line?: string) => Promise<Reply>;
  /** Keeps nobody waiting while nothing is asked. */
  rest: () => void;
  wake: () => void;
  /** Says QUIT and waits for nothing. */
  quit: () => void;
  close: () => void;
}

/**
 * Comes to where a server takes recipients: greeting, EHLO, STARTTLS where it is offered (RFC 3207), MAIL FROM. Who a certificate is of does not matter
 * here (opportunistic, RFC 7435); a server whose TLS fails is asked without. Throws when it hangs up or is silent.
 */
export async function openSession(options: SessionOptions, signal: AbortSignal, secure = true): Promise<Opened> {
  let session = plainSession(options);
  const hangUp = () => session.close();
  const deadline = setTimeout(hangUp, options.timeoutMs * 3);
  signal.addEventListener('abort', hangUp, { once: true });
  const refused = (reply: Reply): Opened => {
    session.close();
    return { refused: reply };
  };
  try {
    const greeting = await session.say();
    if (greeting.code !== 220) return refused(greeting);
    let hello = await session.say(`EHLO ${options.helo}`);
    if (hello.code >= 500) hello = await session.say(`HELO ${options.helo}`);
    if (hello.code !== 250) return refused(hello);
    if (secure && hello.lines.some((line) => /^STARTTLS\b/i.test(line))) {
      const safe = (await session.say('STARTTLS')).code === 220 ? await session.secured() : null;
      if (!safe) {
        session.close();
        return await openSession(options, signal, false);
      }
      session = safe;
      const again = await session.say(`EHLO ${options.helo}`);
      if (again.code !== 250) return refused(again);
    }
    const from = await session.say(`MAIL FROM:<${options.from}>`);
    return from.code === 250 ? { session } : refused(from);
  } catch (error) {
    session.close();
    throw error;
  } finally {
    clearTimeout(deadline);
    signal.removeEventListener('abort', hangUp);
  }
}

function plainSession({ address, port, timeoutMs, onConnect }: SessionOptions) {
  const socket = connect({ host: address, port });
  if (onConnect) socket.once('connect', onConnect);
  const talk = talking(socket, timeoutMs);
  return {
    ...talk,
    secured: () => {
      talk.silence();
      return secured(socket, timeoutMs);
    },
  };
}

/** The same connection under TLS; null when that fails. */
async function secured(socket: Socket, timeoutMs: number) {
  const safe = connectSecurely({ socket, rejectUnauthorized: false });
  const talk = talking(safe, timeoutMs);
  const isSafe = await new Promise<boolean>((resolve) => {
    safe.once('secureConnect', () => resolve(true)).once('close', () => resolve(false));
  });
  return isSafe ? { ...talk, secured: () => Promise.resolve(null) } : null;
}

function talking(socket: Socket, timeoutMs: number) {
  const close = () => void socket.destroy();
  socket.on('error', close);
  socket.setTimeout(timeoutMs).on('timeout', close);
  const lines = linesOf(socket);
  return {
    async say(line?: string): Promise<Reply & { lines: string[] }> {
      if (line !== undefined) socket.write(`${line}\r\n`);
      const said: string[] = [];
      for (;;) {
        const found = /^(\d{3})([ -]?)(.*)$/.exec(await lines.next());
        if (!found) throw new Error('not a reply');
        said.push(found[3]!);
        if (found[2] !== '-') return { code: Number(found[1]), text: said[0]!, lines: said };
      }
    },
    silence: lines.stop,
    rest: () => void socket.setTimeout(0).unref(),
    wake: () => void socket.setTimeout(timeoutMs).ref(),
    quit() {
      socket.end('QUIT\r\n');
      socket.destroySoon();
    },
    close,
  };
}

/** The lines that come, one at a time; rejects when no more do. Who says too much is hung up on. */
function linesOf(socket: Socket) {
  const whole: string[] = [];
  let part = '';
  let bytes = 0;
  let waiting: { resolve: (line: string) => void; reject: (error: Error) => void } | null = null;
  const onData = (chunk: Buffer) => {
    bytes += chunk.length;
    if (bytes > MOST_BYTES) return void socket.destroy();
    const lines = (part + chunk.toString()).split(/\r?\n/);
    part = lines.pop()!;
    whole.push(...lines);
    if (!waiting || whole.length === 0) return;
    waiting.resolve(whole.shift()!);
    waiting = null;
  };
  socket.on('data', onData);
  socket.once('close', () => waiting?.reject(new Error('closed')));
  return {
    next: () =>
      new Promise<string>((resolve, reject) => {
        const line = whole.shift();
        if (line !== undefined) resolve(line);
        else if (socket.destroyed) reject(new Error('closed'));
        else waiting = { resolve, reject };
      }),
    stop: () => void socket.off('data', onData),
  };
}
