import Fastify, { type FastifyInstance } from 'fastify';
import type { CallLog, Scenario } from '../kit/call-log';
import { chance } from '../kit/chance';
import type { World } from '../world/world';

const KEY = 'weathercock-demo-key';
const PRICE_CENTS = 5;
const TOPICS = [
  'humidity control',
  'listeria',
  'cold chain',
  'energy prices',
  'data loggers',
  'packaging rules',
  'milk prices',
  'exporting',
];
/** How many firms read about something in a week, and about how much of it. */
const READS = 0.35;
const SHARE = 0.25;
const DAY_MS = 86_400_000;

/**
 * A feed of what people at companies read about, new each week. `GET /v1/weeks/current/:domain` says for nothing whether there is anything;
 * `PUT /v1/purchases/:record` buys it, once however often it is asked. `GET /v1/account` is its bill.
 */
export async function startTopics(
  world: World,
  port: number,
  shared: { log: CallLog; scenario: Scenario },
): Promise<FastifyInstance> {
  const app = Fastify({ forceCloseConnections: true });
  const week = () => Math.floor((Date.now() / DAY_MS + shared.scenario.daysAhead - 4) / 7);
  const topicsOf = (firm: number, at: number) => {
    if (chance('reads', firm, at) > READS) return [];
    const some = TOPICS.filter((topic) => chance('topic', topic, firm, at) < SHARE);
    return some.length > 0 ? some : [TOPICS[firm % TOPICS.length]!];
  };

  const bought = new Set<string>();
  app.addHook('onRequest', async (request, reply) => {
    if (request.headers.authorization !== `Bearer ${KEY}`) return reply.status(401).send({ error: 'unknown key' });
    shared.log.add('topics', request.url);
  });
  app.get('/v1/weeks/current/:domain', (request) => {
    const firm = world.firmByDomain.get((request.params as { domain: string }).domain);
    const record = firm && topicsOf(firm.id, week()).length > 0 ? `wk-${firm.id}-${week()}` : null;
    return { record, price_cents: PRICE_CENTS };
  });
  app.put('/v1/purchases/:record', (request, reply) => {
    const found = /^wk-(\d+)-(\d+)$/.exec((request.params as { record: string }).record);
    const topics = found ? topicsOf(Number(found[1]), Number(found[2])) : [];
    if (topics.length === 0) return reply.status(404).send({ error: 'nothing was offered under this record' });
    bought.add(found![0]);
    return { topics };
  });
  app.get('/v1/account', () => ({ records: bought.size, cents: bought.size * PRICE_CENTS }));
  await app.listen({ host: '127.0.0.1', port });
  return app;
}
