/** What was missed while this process was busy is made up for by no more than this: all of it at once is too fast for whoever counts by the second. */
const MADE_UP_MS = 50;

/** What a question may be held up in all before it waits for another run; and the least that one is. */
export const MOST_HELD_MS = 120_000;
const LEAST_HELD_MS = 200;

export interface Pace {
  /** Waits until it is the caller's turn. */
  turn: (key: string, perSecond: number, signal: AbortSignal) => Promise<void>;
  /** Nobody's turn of a key comes before so much time has passed, or the least that is waited. @returns that time in ms */
  hold: (key: string, ms: number) => number;
}

/** Lets at most so many calls a second through for each key, in order. Who stops waiting takes nobody's place. */
export function paced(now: () => number = Date.now): Pace {
  /** By key: when the next turn is due, once the one before has come; and until when none comes. */
  const lines = new Map<string, { due: Promise<number>; heldUntil: number }>();
  const lineOf = (key: string) => {
    const line = lines.get(key) ?? { due: Promise.resolve(now()), heldUntil: 0 };
    lines.set(key, line);
    return line;
  };
  return {
    async turn(key, perSecond, signal) {
      const came = now();
      const line = lineOf(key);
      const before = line.due;
      const mine = before.then(async (due) => {
        let at = Math.max(due, came, now() - MADE_UP_MS);
        do {
          at = Math.max(at, line.heldUntil);
          await sleep(at - now(), signal);
        } while (line.heldUntil > now());
        return at + 1000 / perSecond;
      });
      line.due = mine.catch(() => before);
      await mine;
    },
    hold(key, ms) {
      const line = lineOf(key);
      const held = Math.max(LEAST_HELD_MS, ms);
      line.heldUntil = Math.max(line.heldUntil, now() + held);
      return held;
    },
  };
}

/** Waits; rejects at once when the signal says stop. */
export async function sleep(ms: number, signal: AbortSignal): Promise<void> {
  signal.throwIfAborted();
  if (ms <= 0) return;
  await new Promise<void>((resolve, reject) => {
    const timer = setTimeout(() => {
      signal.removeEventListener('abort', stop);
      resolve();
    }, ms);
    const stop = () => {
      clearTimeout(timer);
      reject(signal.reason as Error);
    };
    signal.addEventListener('abort', stop, { once: true });
  });
}
