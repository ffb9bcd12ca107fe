import type { Fetched } from './fetch-page';
import { retryAfterMs } from '../wrap/retry-after';

/** How long is waited when a site asks for it without saying how long. */
const USUAL_WAIT_MS = 60_000;
const LONGEST_WAIT_MS = 86_400_000;

/** The site asks to wait. */
export class AskedToWait extends Error {
  constructor(readonly waitMs: number) {
    super('asked to wait');
  }
}

/** Throws AskedToWait for 429, and for 503 with Retry-After. */
export function throwIfAskedToWait({ status, retryAfter }: Pick<Fetched, 'status' | 'retryAfter'>): void {
  if (status === 429 || (status === 503 && retryAfter.has('retry-after')))
    throw new AskedToWait(retryAfterMs(retryAfter, USUAL_WAIT_MS, Date.now(), LONGEST_WAIT_MS));
}
