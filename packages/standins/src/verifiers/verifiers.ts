import type { FastifyPluginCallback } from 'fastify';
import type { CallLog } from '../kit/call-log';
import { chance } from '../kit/chance';
import { askedAs, gate } from '../kit/gate';
import { mailboxAt } from '../world/mailboxes';
import type { World } from '../world/world';
import { VERIFIERS, type VerifierManner } from './services';

/**
 * The services that verify addresses, each under its name. `POST /v1/addresses` says of an address whether its mailbox is open, full or none, or that it is
 * unsure; `GET /v1/account` is the bill. Each answer but an unsure one is charged, and again unless it comes under the same `Idempotency-Key`.
 */
export const verifiers =
  (world: World, shared: { log: CallLog }): FastifyPluginCallback =>
  (app, _options, ready) => {
    for (const manner of VERIFIERS) app.register(verifier(world, manner, shared), { prefix: `/${manner.id}` });
    ready();
  };

const verifier =
  (
    world: World,
    { id, key, priceCents, perSecond, unsure, wrong, tellsAny }: VerifierManner,
    shared: { log: CallLog },
  ): FastifyPluginCallback =>
  (app, _options, ready) => {
    const charged = new Set<string>();

    app.addHook('onRequest', gate(key, perSecond));
    app.post('/v1/addresses', (request, reply) => {
      const { email = '' } = (request.body ?? {}) as Record<string, string>;
      if (!email.includes('@')) return reply.status(400).send({ error: 'an email is needed' });
      shared.log.add(`verifier ${id}`, email);
      const truth = mailboxAt(world, email);
      const isUnsure = truth === 'unsure' || chance(id, 'unsure', email) < unsure;
      const isWrong = chance(id, 'wrong', email) < wrong;
      const mailbox = isUnsure ? 'unsure' : truth === 'any' ? 'open' : isWrong ? OTHER[truth] : truth;
      if (mailbox !== 'unsure') charged.add(askedAs(request));
      return reply.send({
        mailbox,
        takes_any: tellsAny && mailbox !== 'unsure' ? truth === 'any' : null,
        price_cents: priceCents,
      });
    });

    app.get('/v1/account', () => ({ charges: charged.size, cents: charged.size * priceCents }));
    ready();
  };

const OTHER = { open: 'none', none: 'open', full: 'open' } as const;
