import Fastify from 'fastify';
import { ANY_AGE, judge, type Question } from '@sieve/core';
import { settings } from '@sieve/contract';
import { testDb, testJob } from '../../testing/fixtures';
import { asking } from '../ask';
import { factsAt, keepFact } from '../facts';
import { ServiceDown } from '../wrap/service-down';

const { db } = testDb();
const never = new AbortController().signal;
const app = Fastify();
const heard: { email: string; as: string }[] = [];
let says: Record<string, unknown> = {};
app.post('/v1/addresses', (request, reply) => {
  heard.push({ email: (request.body as { email: string }).email, as: String(request.headers['idempotency-key']) });
  return reply.send({ takes_any: null, price_cents: 2, ...says });
});
let url = '';
beforeAll(async () => {
  url = await app.listen({ host: '127.0.0.1', port: 0 });
});
afterAll(() => app.close());

const set = (through: string) =>
  settings.parse({
    verifiers: [
      {
        id: 'touchstone',
        name: 'Touchstone',
        url,
        key: 'k',
        priceCents: 2,
        perSecond: 1000,
      },
    ],
    mail: { through },
  });
const domain = 'tidewell.example';
const email = `maren@${domain}`;
const mailbox: Question = { kind: 'mailbox', email };

test('a verifier answers in place of the mail servers; what it cannot say is no no, and not paid', async () => {
  const ask = asking(set('touchstone'));
  says = { mailbox: 'open', takes_any: false };
  const open = await ask(mailbox, never);
  expect(open).toEqual({ state: 'accepted', code: 0, by: 'touchstone', cents: 2, takesAny: false });
  says = { mailbox: 'unsure' };
  expect(await ask(mailbox, never)).toEqual({ state: 'no-answer', code: 0, by: 'touchstone', cents: 0 });
  // The same question under the same name, one that is asked again after its time under another.
  await ask(mailbox, never, { answer: open, askedAt: 5 });
  expect(heard.map(({ as }) => as === heard[0]!.as)).toEqual([true, true, false]);
});

test('whether a domain takes mail for anybody is asked with an address that nobody has', async () => {
  const ask = asking(set('touchstone'));
  const any: Question = { kind: 'catch-all', domain };
  for (const [said, state] of [
    [{ mailbox: 'open' }, 'catch-all'],
    [{ mailbox: 'open', takes_any: false }, 'unclear'],
    [{ mailbox: 'none' }, 'selective'],
    [{ mailbox: 'unsure' }, 'no-answer'],
  ] as const) {
    says = said;
    const cents = state === 'no-answer' ? 0 : 2;
    expect(await ask(any, never)).toEqual({ state, by: 'touchstone', cents });
  }
  expect(heard.at(-1)!.email).toMatch(/^[0-9a-f]{18}@tidewell\.example$/);
});

test('one that is gone, or asks more than was set, is not asked', async () => {
  await expect(asking(set('plumbline'))(mailbox, never)).rejects.toThrow(ServiceDown);
  says = { mailbox: 'open', price_cents: 3 };
  await expect(asking(set('touchstone'))(mailbox, never)).rejects.toMatchObject({ service: 'touchstone' });
});

test('the verifier is charged for, once an address, also after it could not say; the address is judged by it', async () => {
  const job = testJob(db, 'Verified', 100);
  const set2 = set('touchstone');
  const ask = asking(set2);
  const charge = { jobId: job, reason: 'address verified for contact 1', contact: 1 };
  keepFact(db, { kind: 'mail-host', domain }, { state: 'hosts', hosts: ['mx.example'] }, 1, null);
  for (const [at, mailboxSays] of [
    [2, 'unsure'],
    [3, 'open'],
    [4, 'open'],
  ] as const) {
    says = { mailbox: mailboxSays, takes_any: false };
    keepFact(db, mailbox, await ask(mailbox, never), at, charge);
  }
  expect(judge(email, { facts: factsAt(db, 5, ANY_AGE), lists: set2.lists }).done).toEqual({
    verdict: 'valid',
    reason: 'accepted',
    askedAt: 1,
  });
  const charges = db.$client.prepare('SELECT who, cents, at FROM charges').all();
  expect(charges).toEqual([{ who: 'touchstone', cents: 2, at: 3 }]);
});
