import type { TriedService, TryService } from '@sieve/contract';
import * as z from 'zod';
import { directoryClient } from './directory/client';
import { callService } from './wrap/call-service';
import { readAs } from './wrap/read-as';
import { ServiceDown } from './wrap/service-down';

const PATIENCE_MS = 12_000;
/** What else an account says is its own affair. */
const account = z.looseObject({ plan: z.object({ credits: z.int().min(0), left: z.int().min(0) }).nullish() });
const NOBODY = 'https://nobody.invalid/';

/** Asks a service once for what costs nothing: that it can be reached, and takes the key. */
export async function triedService({ kind, name, url, key }: TryService): Promise<TriedService> {
  const signal = AbortSignal.timeout(PATIENCE_MS);
  const began = performance.now();
  const answered = (plan: { credits: number; left: number } | null): TriedService => ({
    state: 'answered',
    ms: Math.round(performance.now() - began),
    plan,
  });
  try {
    if (kind === 'directory') {
      await directoryClient({ name: name || 'Directory', url, key, perSecond: 1000, simulated: false }).find(
        NOBODY,
        signal,
      );
      return answered(null);
    }
    const path = kind === 'model' ? '/models' : '/v1/account';
    const service = { id: name, url, key };
    const said = await callService(service, 'GET', path, undefined, signal, { once: true });
    return answered(readAs(account, service, said).plan ?? null);
  } catch (error) {
    if (error instanceof ServiceDown) return { state: 'down', reason: error.reason };
    if (signal.aborted) return { state: 'down', reason: 'it did not answer' };
    throw error;
  }
}
