import { randomUUID } from 'node:crypto';
import type { FastifyRequest, onRequestAsyncHookHandler } from 'fastify';

/** A hook that wants a key (401 without it) and keeps a pace (429 with Retry-After over it). */
export function gate(key: string, perSecond: number): onRequestAsyncHookHandler {
  let window = { second: 0, calls: 0 };
  return async (request, reply) => {
    if (request.headers.authorization !== `Bearer ${key}`) return reply.status(401).send({ error: 'unknown key' });
    const second = Math.floor(Date.now() / 1000);
    window = window.second === second ? { second, calls: window.calls + 1 } : { second, calls: 1 };
    if (window.calls > perSecond) return reply.status(429).header('retry-after', '1').send({ error: 'too fast' });
  };
}

/** Seconds that a service which fails now and then stays out of order. */
const DOWN_FOR_MS = 15_000;
/** A number that stays as long as such a service does: what decides whether it is out of order now. */
export const spellNow = (): number => Math.floor(Date.now() / DOWN_FOR_MS);

/** What names a question that may come twice: its `Idempotency-Key`; without one it is a question of its own. */
export const askedAs = ({ headers }: FastifyRequest): string => String(headers['idempotency-key'] ?? randomUUID());
