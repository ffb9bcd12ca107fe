import { setTimeout as wait } from 'node:timers/promises';
import type { FastifyInstance } from 'fastify';
import { toAppError } from '../errors';

const AGAIN_MS = 25;
const READS = new Set(['GET', 'HEAD']);

/**
 * A command that meets another's lock is tried again for a while, so that nobody else waits with it: it kept nothing, since all it
 * writes is one transaction.
 *
 * @param patienceMs after which it is told `locked`
 */
export function patient(app: FastifyInstance, patienceMs: number): void {
  app.addHook('onRoute', (route) => {
    const { handler, method } = route;
    // Who only reads meets no lock.
    if ([method].flat().every((one) => READS.has(one))) return;
    route.handler = async function (request, reply) {
      const until = performance.now() + patienceMs;
      for (;;) {
        try {
          return await handler.call(this, request, reply);
        } catch (error) {
          if (toAppError(error).code !== 'locked' || performance.now() > until) throw error;
          await wait(AGAIN_MS);
        }
      }
    };
  });
}
