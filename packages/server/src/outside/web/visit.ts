import { AppError } from '../../errors';
import { encodingOf } from '../../sources/documents/head';
import { sleep } from '../wrap/pace';
import { throwIfAskedToWait } from './asked-to-wait';
import { fetchPage, type Web } from './fetch-page';
import { robotsOf, throwIfRefused, type Robots } from './robots';

const TRIES = 3;
const AGAIN_MS = 1000;
/** A page as it came. */
export interface Visited {
  address: string;
  html: string;
  bytes: number;
}

/** Visits pages: what each site's robots.txt says is asked once and kept to, wherever an address leads. */
export function visitor(web: Web) {
  const known = new Map<string, Promise<Robots>>();
  const robots = (address: string, signal: AbortSignal): Promise<Robots> => {
    const { origin } = new URL(address);
    const asked = known.get(origin) ?? robotsOf(address, web, signal);
    known.set(origin, asked);
    asked.catch(() => known.delete(origin));
    return asked;
  };
  return {
    robots,
    /** Throws AskedToWait, and AppError `page-refused`, `page-down`, `no-page`, `private-address`. */
    async visit(address: string, signal: AbortSignal): Promise<Visited> {
      const mayGo = async (to: string) => throwIfRefused(await robots(to, signal), to);
      await mayGo(address);
      let reason = '';
      for (let attempt = 1; attempt <= TRIES; attempt++) {
        if (attempt > 1) await sleep(AGAIN_MS * attempt, signal);
        const found = await fetchPage(address, web, signal, (to) => mayGo(to.href)).catch((error: unknown) => {
          if (error instanceof AppError && error.code === 'page-down') return error;
          throw error;
        });
        if (found instanceof AppError) {
          reason = String(found.details['reason']);
          continue;
        }
        throwIfAskedToWait(found);
        const { status, type, body, charset } = found;
        if (status >= 500) {
          reason = `it answered ${status}`;
          continue;
        }
        if (status !== 200) throw new AppError('page-down', { address, reason: `it answered ${status}`, status });
        if (!/^(text\/(html|plain)|application\/xhtml\+xml)?$/.test(type))
          throw new AppError('no-page', { address, type });
        return { address: found.address, html: decoded(body, charset), bytes: body.length };
      }
      throw new AppError('page-down', { address, reason });
    },
  };
}

function decoded(body: Buffer, charset: string): string {
  try {
    return new TextDecoder(charset || encodingOf(body)).decode(body);
  } catch {
    return new TextDecoder(encodingOf(body)).decode(body);
  }
}
