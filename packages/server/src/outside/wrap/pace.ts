/**
 * Lets at most so many calls a second through for each key, in order.
 *
 * @returns waits until it is the caller's turn
 */
export function paced(
  now: () => number = Date.now,
): (key: string, perSecond: number, signal: AbortSignal) => Promise<void> {
  const next = new Map<string, number>();
  return async (key, perSecond, signal) => {
    const at = Math.max(now(), next.get(key) ?? 0);
    next.set(key, at + 1000 / perSecond);
    await sleep(at - now(), signal);
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
