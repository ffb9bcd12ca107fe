import { setMaxListeners } from 'node:events';

/** A question from a screen is given up after this long. */
const PATIENCE_MS = 120_000;

/** Stops the questions that a screen asks once nobody would still wait for them. */
export function patience(): AbortSignal {
  const signal = AbortSignal.timeout(PATIENCE_MS);
  // Every question that waits its turn listens.
  setMaxListeners(0, signal);
  return signal;
}
