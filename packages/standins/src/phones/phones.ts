import type { FastifyPluginCallback } from 'fastify';
import type { CallLog, Scenario } from '../kit/call-log';
import { chance } from '../kit/chance';
import { askedAs, gate, spellNow } from '../kit/gate';
import { homeOf, type Home } from '../world/homes';
import type { Worker, World } from '../world/world';
import { letters } from '../world/world';
import { PHONE_SERVICES, type PhoneManner } from './services';

interface Listed {
  person: Worker;
  home: Home;
}

/**
 * The services that list phones, each under its name. `POST /v1/phones` answers with the numbers listed at an address under a first and last name, or
 * under the last name alone where no first name is given; `GET /v1/account` is the bill. Each question is charged, and again unless it comes under the same `Idempotency-Key`.
 */
export const phoneServices =
  (world: World, shared: { log: CallLog; scenario: Scenario }): FastifyPluginCallback =>
  (app, _options, ready) => {
    const at = listings(world);
    for (const manner of PHONE_SERVICES) app.register(service(at, manner, shared), { prefix: `/${manner.id}` });
    ready();
  };

/** Who is listed where, by the postcode. */
function listings(world: World): Map<string, Listed[]> {
  const at = new Map<string, Listed[]>();
  for (const person of world.people) {
    const home = homeOf(person);
    if (!home) continue;
    const code = squeezed((home.listedBefore && home.before ? home.before : home).postcode);
    at.set(code, [...(at.get(code) ?? []), { person, home }]);
  }
  return at;
}

const squeezed = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');
const POSTCODE = /\b(ZZ\d \d[A-Z]{2}|Z99 [A-Z]\d\d[A-Z])\b/i;

const service =
  (
    at: Map<string, Listed[]>,
    manner: PhoneManner,
    shared: { log: CallLog; scenario: Scenario },
  ): FastifyPluginCallback =>
  (app, _options, ready) => {
    const { id, key, pays, priceCents, perSecond, knows, old, down = 0 } = manner;
    const charged = new Set<string>();

    app.addHook('onRequest', gate(key, perSecond));
    app.addHook('onRequest', async (_request, reply) => {
      if (shared.scenario.phonesDown.includes(id) || chance(id, 'down', spellNow()) < down)
        return reply.status(503).send({ error: 'out of order' });
    });

    app.post('/v1/phones', (request, reply) => {
      const {
        first_name: first = '',
        last_name: last = '',
        address = '',
      } = (request.body ?? {}) as Record<string, string>;
      if (!last || !address) return reply.status(400).send({ error: 'last_name and address are needed' });
      shared.log.add(`phones ${id}`, `${first} ${last} ${address}`);
      const code = squeezed(POSTCODE.exec(address)?.[0] ?? '');
      const phones = (at.get(code) ?? [])
        .filter(({ person, home }) => {
          const { street } = home.listedBefore && home.before ? home.before : home;
          const isThere = squeezed(address).startsWith(squeezed(street));
          return (
            isThere &&
            letters(person.lastName) === letters(last) &&
            (!first || letters(home.listedAs) === letters(first))
          );
        })
        .flatMap(({ person, home }) => {
          const isOld = chance(id, 'old', person.id) < old;
          const shown = (number: string) =>
            isOld ? number.replace(/\d$/, (last) => String((Number(last) + 1) % 10)) : number;
          const named = { first_name: home.listedAs, last_name: person.lastName };
          return [
            ...(home.landline && chance(id, 'landline', person.id) < knows.landline
              ? [{ ...named, number: shown(home.landline), kind: null }]
              : []),
            ...(home.mobile && chance(id, 'mobile', person.id) < knows.mobile
              ? [{ ...named, number: shown(home.mobile), kind: 'mobile' as const }]
              : []),
          ];
        });
      if (pays === 'question' || phones.length > 0) charged.add(askedAs(request));
      return reply.send({ price_cents: priceCents, phones });
    });

    app.get('/v1/account', () => ({ charges: charged.size, cents: charged.size * priceCents }));
    ready();
  };
