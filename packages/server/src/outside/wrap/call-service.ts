import type { ServiceSetting } from '@sieve/contract';
import { sleep } from './pace';
import { retryAfterMs } from './retry-after';
import { ServiceDown, TooFast } from './service-down';

const TRIES = 4;
/** After 429 without Retry-After. Common practice, no source. */
const USUAL_WAIT_MS = 1000;

/**
 * Asks a service that sells: JSON over HTTP under a key. Honours Retry-After. Throws ServiceDown; TooFast when the first answer is 429.
 *
 * @param as the same for the same question, so that a service which charges for questions can tell one that is sent again from another one:
 *   the header of the IETF draft "The Idempotency-Key HTTP Header Field"
 * @param once the call may cost when it is repeated: it is sent again only when the service said that it did nothing. Others change
 *   nothing, or are purchases whose key is what they buy
 */
export async function callService(
  service: Pick<ServiceSetting, 'id' | 'url' | 'key'>,
  method: string,
  path: string,
  body: object | undefined,
  signal: AbortSignal,
  { as = '', once = false, timeoutMs = 10_000 } = {},
): Promise<unknown> {
  let reason = 'it did not answer';
  for (let attempt = 1; attempt <= TRIES; attempt++) {
    let waitMs = 250 * 2 ** attempt;
    try {
      const response = await fetch(service.url.replace(/\/$/, '') + path, {
        method,
        headers: {
          authorization: `Bearer ${service.key}`,
          ...(body && { 'content-type': 'application/json' }),
          ...(as && { 'idempotency-key': as }),
        },
        ...(body && { body: JSON.stringify(body) }),
        // Where it leads to is not where the settings sent it.
        redirect: 'manual',
        signal: AbortSignal.any([signal, AbortSignal.timeout(timeoutMs)]),
      });
      if (response.ok) return await response.json();
      if (response.status === 401 || response.status === 403)
        throw new ServiceDown(service.id, 'it does not accept the key');
      if (response.status === 402)
        throw new ServiceDown(service.id, 'it wants to be paid first, its plan may be used up');
      // Behind a failure it is one more of it: a service that is down may refuse, too.
      if (response.status === 429 && attempt === 1)
        throw new TooFast(service.id, retryAfterMs(response.headers, USUAL_WAIT_MS, Date.now()));
      if (response.status < 500 && response.status !== 429)
        throw new ServiceDown(service.id, `it answered ${response.status}`);
      reason = `it answered ${response.status}`;
      waitMs = retryAfterMs(response.headers, waitMs, Date.now());
    } catch (error) {
      if (error instanceof ServiceDown) throw error;
      signal.throwIfAborted();
      if (once) break;
    }
    if (attempt < TRIES) await sleep(waitMs, signal);
  }
  throw new ServiceDown(service.id, reason);
}
