import type { FastifyInstance } from 'fastify';
import type { CallLog, Scenario } from '../kit/call-log';
import type { World } from '../world/world';
import { mannerOf, markupOf, pagesOf } from './site';

const SLOW_MS = 1200;

/**
 * The web sites of all firms, told apart by Host: a few pages each in differing markup, some in German or French. Some are slow, down,
 * parked, or keep everything to themselves; some have moved to `www.`, where their home leads to.
 */
export async function siteRoutes(
  app: FastifyInstance,
  world: World,
  shared: { log: CallLog; scenario: Scenario },
): Promise<void> {
  app.get('/*', async (request, reply) => {
    const host = (request.headers.host ?? '').split(':')[0]!;
    const firm = world.firmByDomain.get(host.replace(/^www\./, ''));
    if (!firm) return reply.status(404).type('text/plain').send('No such site.');
    const path = request.originalUrl.split('?')[0]!;
    shared.log.add('site', `${host}${path}`);
    if (shared.scenario.webStatus > 0) return reply.status(shared.scenario.webStatus).send('Out of order.');
    const manner = mannerOf(firm);
    if (manner === 'unregistered') return reply.status(404).send();
    if (manner === 'down') return reply.status(503).type('text/html').send('<p>Down for maintenance.</p>');
    if (manner === 'slow') await new Promise((resolve) => setTimeout(resolve, SLOW_MS));
    if (manner === 'moved' && !host.startsWith('www.')) return reply.redirect(`http://www.${firm.domain}${path}`);
    if (path === '/robots.txt')
      return reply.type('text/plain').send(`User-agent: *\nDisallow: ${manner === 'private' ? '/' : '/basket'}\n`);
    const pages = pagesOf(firm);
    const page = pages.find((known) => known.path === path);
    if (!page) return reply.status(404).type('text/html').send('<p>Not here.</p>');
    return reply.type('text/html; charset=utf-8').send(markupOf(firm, page, pages));
  });
}
