import type { AnswerOf } from '@sieve/core';
import { openSession, type Reply, type Session, type SessionOptions } from './session';

type Answer = AnswerOf<'mailbox'>;
/** Asks the mail server at an address whether it would take mail for an email address. */
export type Probe = (email: string, options: SessionOptions, signal: AbortSignal) => Promise<Answer>;

/** Recipients of one connection (RFC 5321, 4.5.3.1.8: a server must take 100), and those refused after which many servers slow down. Common practice, no source. */
const MOST_ASKED = 40;
const MOST_REFUSED = 5;
/** How long a connection is kept for the next question. */
const KEPT_MS = 1500;

interface Kept {
  session: Session;
  asked: number;
  refused: number;
  closing?: NodeJS.Timeout;
}

/**
 * Asks mail servers whether they would take mail: RCPT TO in a transaction that is never ended by DATA, so that nothing is sent (RFC 5321). A connection
 * is used for several addresses; one that is of no more use is replaced, and the question asked again. A dropped, silent, endless or garrulous
 * server is `no-answer`. Rejects when the signal says stop.
 */
export function mailProbe(): Probe {
  const kept = new Map<string, Kept[]>();

  function keep(key: string, one: Kept) {
    one.session.rest();
    one.closing = setTimeout(() => {
      kept.set(
        key,
        (kept.get(key) ?? []).filter((other) => other !== one),
      );
      one.session.quit();
    }, KEPT_MS).unref();
    kept.set(key, [...(kept.get(key) ?? []), one]);
  }

  function take(key: string): Kept | undefined {
    const one = kept.get(key)?.pop();
    clearTimeout(one?.closing);
    one?.session.wake();
    return one;
  }

  /** Null when the connection is of no more use for this address. */
  async function ask(one: Kept, email: string, key: string, timeoutMs: number, signal: AbortSignal) {
    const deadline = setTimeout(one.session.close, timeoutMs * 3);
    signal.addEventListener('abort', one.session.close, { once: true });
    try {
      const reply = await one.session.say(`RCPT TO:<${email}>`);
      if (one.asked > 0 && isWornOut(reply)) {
        one.session.quit();
        return null;
      }
      const state = stateOf(reply);
      one.asked++;
      if (state !== 'accepted') one.refused++;
      if (reply.code === 421 || one.asked >= MOST_ASKED || one.refused >= MOST_REFUSED) one.session.quit();
      else keep(key, one);
      return { state, code: reply.code };
    } catch {
      one.session.close();
      return null;
    } finally {
      clearTimeout(deadline);
      signal.removeEventListener('abort', one.session.close);
    }
  }

  return async (email, options, signal) => {
    const { address, port, timeoutMs } = options;
    const key = `${address} ${port}`;
    signal.throwIfAborted();
    const used = take(key);
    const again = used && (await ask(used, email, key, timeoutMs, signal));
    signal.throwIfAborted();
    if (again) return again;
    const opened = await openSession(options, signal).catch(() => null);
    signal.throwIfAborted();
    if (opened && 'refused' in opened) return byGreeting(opened.refused);
    const first =
      opened && (await ask({ session: opened.session, asked: 0, refused: 0 }, email, key, timeoutMs, signal));
    signal.throwIfAborted();
    return first ?? { state: 'no-answer', code: 0 };
  };
}

/** A connection on which somebody was asked about before says that it has had enough. */
const isWornOut = ({ code, text }: Reply): boolean =>
  code === 421 || code === 452 || code === 503 || /^4\.5\.3/.test(text);

const byGreeting = ({ code }: Reply): Answer => ({
  state: code >= 400 && code < 500 ? 'try-later' : 'refused-us',
  code,
});

/** What a reply to RCPT means; the enhanced code (RFC 3463) decides where there is one. */
export function stateOf({ code, text }: Reply): Answer['state'] {
  const enhanced = /^([245])\.(\d{1,3})\.(\d{1,3})/.exec(text);
  const detail = enhanced ? `${enhanced[2]}.${enhanced[3]}` : '';
  if (code >= 200 && code < 300) return 'accepted';
  if (detail === '2.2' || code === 552 || code === 452) return 'full';
  if (code >= 400 && code < 500) return 'try-later';
  if (enhanced?.[2] === '7' || code === 554 || code === 530) return 'refused-us';
  return 'no-mailbox';
}
