import { lookup as systemLookup } from 'node:dns';
import { request as httpRequest, type IncomingMessage } from 'node:http';
import { request as httpsRequest } from 'node:https';
import { isIP, type LookupFunction } from 'node:net';
import { createBrotliDecompress, createGunzip, createInflate } from 'node:zlib';
import type { Settings } from '@sieve/contract';
import { AppError } from '../../errors';
import { isPublic } from '../wrap/guard';

/** Who we say that we are; sites can address us by the first word in their robots.txt. */
export const AGENT = 'CrispSieve';
const USER_AGENT = `${AGENT}/0.1 (one connection, follows robots.txt)`;
const MOST_BYTES = 16 * 1024 * 1024;
const MOST_HOPS = 5;
const TIMEOUT_MS = 30_000;

/** What a site answered, at the end of where it led to. */
export interface Fetched {
  address: string;
  status: number;
  /** Media type, without its parameters. */
  type: string;
  charset: string;
  retryAfter: Headers;
  body: Buffer;
}

/** What is simulated, and where. */
export type Web = Pick<Settings['web'], 'simulatedHosts' | 'simulatedAt'>;

/**
 * Fetches an address by GET, following where it leads to. Every host is looked up here and connected to by a public address only, each
 * hop anew; hosts that the settings name as simulated are on this machine. At most 16 MB, 30 s and five hops.
 *
 * @param redirected called before each hop; throws where it may not lead
 *
 * Throws AppError `private-address`, `page-down` (no answer, too slow, too large, too many hops), and whatever the signal says.
 */
export async function fetchPage(
  address: string,
  web: Web,
  signal: AbortSignal,
  redirected: (to: URL) => Promise<void>,
): Promise<Fetched> {
  let at = new URL(address);
  for (let hop = 0; hop <= MOST_HOPS; hop++) {
    const response = await get(at, web, signal);
    const { statusCode: status = 0, headers } = response;
    if (status >= 300 && status < 400 && headers.location && URL.canParse(headers.location, at.href)) {
      response.destroy();
      at = new URL(headers.location, at);
      if (!/^https?:$/.test(at.protocol)) throw down(address, `it leads to ${at.protocol}`);
      await redirected(at);
      continue;
    }
    const [type = '', ...parameters] = (headers['content-type'] ?? '').toLowerCase().split(';');
    return {
      address: at.href,
      status,
      type: type.trim(),
      charset: /charset="?([\w-]+)/.exec(parameters.join(';'))?.[1] ?? '',
      retryAfter: new Headers(headers['retry-after'] ? { 'retry-after': headers['retry-after'] } : {}),
      body: await bodyOf(response, address, signal),
    };
  }
  throw down(address, 'it leads from one address to the next without end');
}

const down = (address: string, reason: string) => new AppError('page-down', { address, reason });

function get(at: URL, web: Web, signal: AbortSignal): Promise<IncomingMessage> {
  const simulated = simulatedAt(at.hostname, web);
  const host = at.hostname.replace(/^\[|\]$/g, '');
  if (!simulated && isIP(host) && !isPublic(host)) throw new AppError('private-address', { host });
  const send = at.protocol === 'https:' && !simulated ? httpsRequest : httpRequest;
  return new Promise((resolve, reject) => {
    const request = send(at, {
      ...(simulated ? { ...simulated } : { lookup: publicLookup }),
      headers: {
        host: at.host,
        'user-agent': USER_AGENT,
        accept: 'text/html,application/xhtml+xml;q=0.9,*/*;q=0.1',
        'accept-encoding': 'gzip, deflate, br',
      },
      signal,
      timeout: TIMEOUT_MS,
    });
    request.once('response', resolve);
    request.once('timeout', () => request.destroy(down(at.href, 'it took too long to answer')));
    request.on('error', (error: NodeJS.ErrnoException) =>
      reject(signal.aborted || error instanceof AppError ? error : down(at.href, wordsOf(error.code))),
    );
    request.end();
  });
}

const wordsOf = (code = ''): string =>
  ({
    ENOTFOUND: 'there is no such host',
    ECONNREFUSED: 'its server does not take connections',
    ECONNRESET: 'it broke off',
  })[code] ?? 'it did not answer';

function simulatedAt(hostname: string, { simulatedHosts, simulatedAt: server }: Web) {
  const isOne = simulatedHosts.some((host) => hostname === host || hostname.endsWith(`.${host}`));
  const [host, port] = server.split(':');
  return isOne && server !== '' ? { protocol: 'http:', hostname: host, port } : null;
}

/** Looks a host up and gives its public addresses only; the connection is made to what was looked at. */
const publicLookup: LookupFunction = (hostname, options, done) =>
  systemLookup(hostname, { ...options, all: true }, (error, found) => {
    if (error) return done(error, '', 0);
    const open = found.filter(({ address }) => isPublic(address));
    if (open.length === 0) return done(new AppError('private-address', { host: hostname }), '', 0);
    if (options.all) return done(null, open);
    return done(null, open[0]!.address, open[0]!.family);
  });

async function bodyOf(response: IncomingMessage, address: string, signal: AbortSignal): Promise<Buffer> {
  const unpack = { gzip: createGunzip, deflate: createInflate, br: createBrotliDecompress }[
    response.headers['content-encoding'] ?? ''
  ];
  const stream = unpack ? response.pipe(unpack()) : response;
  response.on('error', (error) => stream.destroy(error));
  const deadline = setTimeout(() => stream.destroy(down(address, 'it took too long to answer')), TIMEOUT_MS);
  const parts: Buffer[] = [];
  let bytes = 0;
  try {
    for await (const part of stream) {
      bytes += (part as Buffer).length;
      if (bytes > MOST_BYTES) throw down(address, 'it is larger than 16 MB');
      parts.push(part as Buffer);
    }
    return Buffer.concat(parts);
  } catch (error) {
    signal.throwIfAborted();
    throw error instanceof AppError ? error : down(address, 'it broke off');
  } finally {
    clearTimeout(deadline);
    response.destroy();
  }
}
