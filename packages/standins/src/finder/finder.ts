import Fastify, { type FastifyInstance } from 'fastify';
import { PLAIN, type CallLog, type Scenario } from '../kit/call-log';
import { chance } from '../kit/chance';
import type { World } from '../world/world';

const KEY = 'lantern-demo-key';
const PRICE_CENTS = 15;
const PER_SECOND = 40;
/** What it knows, and how often it is wrong. */
const KNOWS = 0.72;
const WRONG = 0.08;

interface Shared {
  log: CallLog;
  scenario: Scenario;
}

/**
 * An email finder over HTTP. `POST /v1/lookups` answers for free with an address or none; `PUT /v1/purchases/:lookup` buys
 * one, once however often it is asked; `GET /v1/account` is its bill. Needs a key, keeps a pace (429 with Retry-After), fails
 * now and then, and is sometimes wrong.
 */
export async function startFinder(world: World, port: number, shared: Shared): Promise<FastifyInstance> {
  const app = Fastify({ forceCloseConnections: true });
  const offered = new Map<string, string>();
  const bought = new Map<string, { lookup: string; email: string; cents: number }>();
  const tries = new Map<string, number>();
  let window = { second: 0, calls: 0 };

  app.addHook('onRequest', async (request, reply) => {
    if (request.url.startsWith('/control')) return;
    if (request.headers.authorization !== `Bearer ${KEY}`) return reply.status(401).send({ error: 'unknown key' });
    const second = Math.floor(Date.now() / 1000);
    window = window.second === second ? { second, calls: window.calls + 1 } : { second, calls: 1 };
    if (window.calls > PER_SECOND) return reply.status(429).header('retry-after', '1').send({ error: 'too fast' });
    if (shared.scenario.finderStatus > 0)
      return reply.status(shared.scenario.finderStatus).send({ error: 'out of order' });
    if (shared.scenario.finderDelayMs > 0)
      await new Promise((resolve) => setTimeout(resolve, shared.scenario.finderDelayMs));
  });

  app.post('/v1/lookups', (request, reply) => {
    const {
      first_name: first = '',
      last_name: last = '',
      domain = '',
    } = (request.body ?? {}) as Record<string, string>;
    if (!first || !last || !domain)
      return reply.status(400).send({ error: 'first_name, last_name and domain are needed' });
    const lookup = `lk-${Math.floor(chance('lookup', first, last, domain) * 1e12).toString(36)}`;
    shared.log.add('finder', `${first} ${last} ${domain}`);
    const attempt = (tries.get(lookup) ?? 0) + 1;
    tries.set(lookup, attempt);
    if (attempt === 1 && chance('outage', lookup) < 0.02) return reply.status(503).send({ error: 'try again' });
    const person = world.personByName(first, last, domain);
    const email =
      !person || chance('knows', lookup) > KNOWS
        ? null
        : chance('wrong', lookup) < WRONG
          ? `${person.email.replace('@', '1@')}`
          : person.email;
    if (email) offered.set(lookup, email);
    return reply.send({ lookup, email, price_cents: PRICE_CENTS });
  });

  app.put('/v1/purchases/:lookup', (request, reply) => {
    const { lookup } = request.params as { lookup: string };
    const email = offered.get(lookup);
    if (!email) return reply.status(404).send({ error: 'nothing was offered under this lookup' });
    if (!bought.has(lookup)) bought.set(lookup, { lookup, email, cents: PRICE_CENTS });
    return reply.send({ lookup, email, bought: true });
  });

  app.get('/v1/account', () => ({
    purchases: [...bought.values()],
    cents: [...bought.values()].reduce((sum, { cents }) => sum + cents, 0),
  }));

  app.get('/control/calls', () => shared.log.counts());
  app.put('/control/scenario', (request) => {
    shared.scenario = { ...PLAIN, ...(request.body as Partial<Scenario>) };
    return shared.scenario;
  });

  await app.listen({ host: '127.0.0.1', port });
  return app;
}
