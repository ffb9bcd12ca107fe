import Fastify, { type FastifyInstance } from 'fastify';
import { type CallLog, type Scenario } from '../kit/call-log';
import { chance } from '../kit/chance';
import { gate } from '../kit/gate';
import { factsOf } from '../sites/trade';
import { letters, type Firm, type World } from '../world/world';

const KEY = 'fernbank-demo-key';
const PRICE_CENTS = 3;
const PER_SECOND = 60;
/** What it knows, and how often it names another sector. */
const KNOWS = 0.88;
const WRONG = 0.04;
const MOST = 5;

/**
 * A company service over HTTP. `GET /v1/companies?name=&city=&country=` finds companies by name for nothing; `GET /v1/companies/:domain`
 * offers what it knows of one; `PUT /v1/purchases/:record` buys that, once however often it is asked. `GET /v1/account` is its bill.
 */
export async function startFirms(
  world: World,
  port: number,
  shared: { log: CallLog; scenario: Scenario },
): Promise<FastifyInstance> {
  const app = Fastify({ forceCloseConnections: true });
  const byStem = new Map<string, Firm[]>();
  for (const firm of world.firms) {
    const stem = letters(firm.name.split(' ')[0]!);
    byStem.set(stem, [...(byStem.get(stem) ?? []), firm]);
  }
  const bought = new Set<string>();
  const isKnown = (firm: Firm) => chance('company known', firm.id) < KNOWS;

  app.addHook('onRequest', gate(KEY, PER_SECOND));
  app.addHook('onRequest', async (request, reply) => {
    if (shared.scenario.firmsStatus > 0)
      return reply.status(shared.scenario.firmsStatus).send({ error: 'out of order' });
    shared.log.add('firms', request.url);
  });

  app.get('/v1/companies', (request) => {
    const { name = '', city = '', country = '' } = request.query as Record<string, string>;
    const found = (byStem.get(letters(name.split(' ')[0] ?? '')) ?? []).filter(isKnown);
    const near = ({ city: c, country: k }: Firm) => Number(c === city) * 2 + Number(k === country);
    return {
      companies: found
        .sort((a, b) => near(b) - near(a) || a.id - b.id)
        .slice(0, MOST)
        .map((firm) => ({
          name: `${firm.name} ${firm.legalForm}`.trim(),
          domain: firm.domain,
          city: firm.city,
          country: firm.country,
        })),
    };
  });

  app.get('/v1/companies/:domain', (request) => {
    const firm = world.firmByDomain.get((request.params as { domain: string }).domain);
    return firm && isKnown(firm)
      ? { record: `co-${firm.id}`, price_cents: PRICE_CENTS }
      : { record: null, price_cents: PRICE_CENTS };
  });

  app.put('/v1/purchases/:record', (request, reply) => {
    const { record } = request.params as { record: string };
    const firm = world.firms[Number(/^co-(\d+)$/.exec(record)?.[1] ?? -1)];
    if (!firm || !isKnown(firm)) return reply.status(404).send({ error: 'nothing was offered under this record' });
    bought.add(record);
    const facts = factsOf(firm);
    return {
      ...facts,
      sector: chance('company wrong', firm.id) < WRONG ? 'Farming' : facts.sector,
      city: firm.city,
      region: firm.region,
      country: firm.country,
    };
  });

  app.get('/v1/account', () => ({ records: bought.size, cents: bought.size * PRICE_CENTS }));

  await app.listen({ host: '127.0.0.1', port });
  return app;
}
