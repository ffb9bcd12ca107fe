import Fastify, { type FastifyInstance, type FastifyPluginCallback } from 'fastify';
import { phoneServices } from '../phones/phones';
import { verifiers } from '../verifiers/verifiers';
import { PLAIN, type CallLog, type Scenario } from '../kit/call-log';
import { chance } from '../kit/chance';
import { askedAs, gate, spellNow } from '../kit/gate';
import type { World } from '../world/world';
import { FINDERS, type Manner } from './finders';

interface Shared {
  log: CallLog;
  scenario: Scenario;
}

/** How many people stand in sources that all finders draw on. */
const PUBLIC = 0.6;

/**
 * The email finders over HTTP, the first at the root, each of the others under its name, the phone services under `/phones`, the verifiers under `/verifiers`. `POST /v1/lookups` answers with an address or none;
 * `PUT /v1/purchases/:lookup` buys one, once however often it is asked; `POST /v1/people` says who has an address; `GET /v1/account` is the bill, and what is left of
 * a plan, whose credits are taken in place of money. One that charges for answers or for
 * questions charges at the lookup, once for each, and again unless it comes under the same `Idempotency-Key`. They need a key, keep a pace (429 with Retry-After), fail now and then, and are
 * sometimes wrong. What the scenario says is out of order is the first one.
 */
export async function startFinder(world: World, port: number, shared: Shared): Promise<FastifyInstance> {
  const app = Fastify({ forceCloseConnections: true });
  for (const [i, manner] of FINDERS.entries())
    await app.register(finder(world, manner, shared, i === 0), { prefix: i === 0 ? '' : `/${manner.id}` });
  await app.register(phoneServices(world, shared), { prefix: '/phones' });
  await app.register(verifiers(world, shared), { prefix: '/verifiers' });
  app.get('/control/calls', () => shared.log.counts());
  app.put('/control/scenario', (request) => {
    shared.scenario = { ...PLAIN, ...(request.body as Partial<Scenario>) };
    return shared.scenario;
  });
  await app.listen({ host: '127.0.0.1', port });
  return app;
}

const finder =
  (world: World, manner: Manner, shared: Shared, isFirst: boolean): FastifyPluginCallback =>
  (app, _options, ready) => {
    const { id, key, pays, priceCents, perSecond, knows, wrong, only, delayMs = 0, down = 0, credits = 0 } = manner;
    const offered = new Map<string, string>();
    const charged = new Map<string, { lookup: string; email: string; cents: number; month: string }>();
    const thisMonth = () => new Date().toISOString().slice(0, 7);
    const creditsLeft = () =>
      credits - [...charged.values()].filter(({ cents, month }) => cents === 0 && month === thisMonth()).length;
    /** Charges once, with a credit while the plan has one. */
    function charge(as: string, lookup: string, email: string): { price_cents: number; credits: number } {
      const one = charged.get(as) ?? { lookup, email, cents: creditsLeft() > 0 ? 0 : priceCents, month: thisMonth() };
      charged.set(as, one);
      return { price_cents: one.cents, credits: one.cents === 0 ? 1 : 0 };
    }
    const tries = new Map<string, number>();

    app.addHook('onRequest', gate(key, perSecond));
    app.addHook('onRequest', async (_request, reply) => {
      const { finderStatus, finderDelayMs } = shared.scenario;
      if (isFirst && finderStatus > 0) return reply.status(finderStatus).send({ error: 'out of order' });
      if (chance(id, 'down', spellNow()) < down) return reply.status(503).send({ error: 'out of order' });
      const delay = delayMs + (isFirst ? finderDelayMs : 0);
      if (delay > 0) await new Promise((resolve) => setTimeout(resolve, delay));
    });

    const named = (...parts: (string | number)[]) => (isFirst ? chance(...parts) : chance(id, ...parts));

    app.post('/v1/lookups', (request, reply) => {
      const {
        first_name: first = '',
        last_name: last = '',
        domain = '',
      } = (request.body ?? {}) as Record<string, string>;
      if (!first || !last || !domain)
        return reply.status(400).send({ error: 'first_name, last_name and domain are needed' });
      const lookup = `lk-${Math.floor(named('lookup', first, last, domain) * 1e12).toString(36)}`;
      shared.log.add(isFirst ? 'finder' : `finder ${id}`, `${first} ${last} ${domain}`);
      const attempt = (tries.get(lookup) ?? 0) + 1;
      tries.set(lookup, attempt);
      if (attempt === 1 && named('outage', lookup) < 0.02) return reply.status(503).send({ error: 'try again' });
      const person = world.personByName(first, last, domain);
      const isKnown = person !== undefined && chance('in public sources', person.id) < PUBLIC;
      const email =
        !person || (only && !only(person.firm)) || named('knows', lookup) > (isKnown ? knows.known : knows.others)
          ? null
          : named('wrong', lookup) < wrong
            ? `${person.email.replace('@', '1@')}`
            : person.email;
      if (email) offered.set(lookup, email);
      const isCharged = pays === 'question' || (pays === 'answer' && email !== null);
      const price = isCharged
        ? charge(`${lookup} ${askedAs(request)}`, lookup, email ?? '')
        : { price_cents: priceCents };
      return reply.send({ lookup, email, ...price });
    });

    app.post('/v1/people', (request, reply) => {
      const { email = '' } = (request.body ?? {}) as { email?: string };
      if (!email) return reply.status(400).send({ error: 'email is needed' });
      shared.log.add(`owner ${id}`, email);
      const theirs = world.personByEmail.get(email.toLowerCase());
      const isKnown = theirs !== undefined && chance('in public sources', theirs.id) < PUBLIC;
      const knowsThem =
        theirs && (!only || only(theirs.firm)) && named('owner', email) <= (isKnown ? knows.known : knows.others);
      const other = theirs && world.people[(theirs.id + 1) % world.people.length]!;
      const person = knowsThem ? (named('wrong owner', email) < wrong ? other : theirs) : null;
      const lookup = `pl-${email}`;
      const price =
        pays === 'question' || person
          ? charge(`${lookup} ${askedAs(request)}`, lookup, email)
          : { price_cents: priceCents };
      return reply.send({
        person: person && {
          first_name: person.firstName,
          last_name: person.lastName,
          title: person.title,
          company: person.firm.name,
        },
        ...price,
      });
    });

    app.put('/v1/purchases/:lookup', (request, reply) => {
      const { lookup } = request.params as { lookup: string };
      const email = offered.get(lookup);
      if (!email) return reply.status(404).send({ error: 'nothing was offered under this lookup' });
      return reply.send({ lookup, email, bought: true, ...charge(lookup, lookup, email) });
    });

    app.get('/v1/account', () => ({
      purchases: [...charged.values()].map(({ lookup, email, cents }) => ({ lookup, email, cents })),
      cents: [...charged.values()].reduce((sum, { cents }) => sum + cents, 0),
      ...(credits > 0 && { plan: { credits, left: creditsLeft() } }),
    }));
    ready();
  };
