import { setMaxListeners } from 'node:events';

/** A question from a screen is given up after this long. */
const PATIENCE_MS = 120_000;

/** Stops the questions that a screen asks once nobody would still wait for them. */
export function patience(ms = PATIENCE_MS): AbortSignal {
  const signal = AbortSignal.timeout(ms);
  // Every question that waits its turn listens.
  setMaxListeners(0, signal);
  return signal;
}
