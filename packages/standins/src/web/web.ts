import Fastify, { type FastifyInstance } from 'fastify';
import { GUILD, guildRoutes } from '../guild/guild';
import type { CallLog, Scenario } from '../kit/call-log';
import { siteRoutes } from '../sites/sites';
import type { World } from '../world/world';

/** All web sites there are, told apart by Host: the guild's, and one for each firm. */
export async function startWeb(
  world: World,
  port: number,
  shared: { log: CallLog; scenario: Scenario },
): Promise<FastifyInstance> {
  const app = Fastify({
    forceCloseConnections: true,
    rewriteUrl: ({ headers, url = '/' }) =>
      `${(headers.host ?? '').split(':')[0] === GUILD ? '/guild' : '/sites'}${url}`,
  });
  await app.register((guild) => guildRoutes(guild, world, shared), { prefix: '/guild' });
  await app.register((sites) => siteRoutes(sites, world, shared), { prefix: '/sites' });
  await app.listen({ host: '127.0.0.1', port });
  return app;
}
