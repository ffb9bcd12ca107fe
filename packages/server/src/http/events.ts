import type { ServerResponse } from 'node:http';
import type { ServerEvent } from '@sieve/contract';
import type { FastifyInstance } from 'fastify';

export interface Events {
  emit: (event: ServerEvent) => void;
  route: (app: FastifyInstance) => void;
}

const KEEP_ALIVE_MS = 20_000;

/** Server-sent events at /api/events: what runs do, and which jobs changed. */
export function createEvents(): Events {
  const listeners = new Set<(event: ServerEvent) => void>();
  const open = new Set<ServerResponse>();
  return {
    emit: (event) => listeners.forEach((listen) => listen(event)),
    route(app) {
      app.get('/api/events', { schema: { hide: true } }, (request, reply) => {
        reply.hijack();
        const { raw } = reply;
        raw.writeHead(200, {
          'content-type': 'text/event-stream',
          'cache-control': 'no-store',
          'x-accel-buffering': 'no',
        });
        raw.write('retry: 1000\n\n');
        const listen = (event: ServerEvent) => raw.write(`data: ${JSON.stringify(event)}\n\n`);
        const beat = setInterval(() => raw.write(': still here\n\n'), KEEP_ALIVE_MS);
        const stop = () => {
          clearInterval(beat);
          listeners.delete(listen);
          open.delete(raw);
        };
        listeners.add(listen);
        request.raw.on('close', stop);
        open.add(raw);
      });
      app.addHook('preClose', () => {
        for (const raw of open) raw.end();
        return Promise.resolve();
      });
    },
  };
}
