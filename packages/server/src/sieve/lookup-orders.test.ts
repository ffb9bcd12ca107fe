import type { Answer, Question } from '@sieve/core';
import { settings } from '@sieve/contract';
import { keepFact } from '../outside/facts';
import { keepCall } from '../outside/service-days';
import { testDb } from '../testing/fixtures';
import { lookupOrders } from './lookup-orders';

const { db } = testDb();
const NOW = Date.UTC(2026, 10, 20, 12);
const finder = (id: string, priceCents: number, pays: 'valid' | 'question') => ({
  id,
  name: id,
  url: 'http://127.0.0.1:1',
  key: '',
  priceCents,
  perSecond: 10,
  pays,
});
const own = settings.parse({
  finders: [finder('dear', 20, 'valid'), finder('poor', 4, 'question'), finder('cheap', 8, 'valid')],
});

test('what finders answered orders them: one that seldom knows anything and charges for asking is left out', () => {
  expect(lookupOrders(db, own, ['dear'], 'addresses', NOW)).toMatchObject({
    people: 0,
    seldom: ['dear', 'poor', 'cheap'],
    cheapest: { ids: ['dear'] },
  });
  const keep = (question: Question, answer: Answer) => keepFact(db, question, answer, 1, null);
  for (let n = 0; n < 120; n++) {
    const domain = `firm${n}.example`;
    const email = `m@${domain}`;
    const asked = (finder: string): Question => ({
      kind: 'finder',
      finder,
      firstName: 'Maren',
      lastName: 'Oakhill',
      domain,
    });
    // Two of three are known to both; the cheap one is wrong now and then.
    const knows = n % 3 !== 0;
    keep(asked('poor'), { email: null, lookup: 'p', priceCents: 4, pays: 'question' });
    keep(asked('cheap'), { email: knows ? email : null, lookup: 'c', priceCents: 8, pays: 'valid' });
    keep(asked('dear'), {
      email: knows ? email : n % 2 ? `x@${domain}` : null,
      lookup: 'd',
      priceCents: 20,
      pays: 'valid',
    });
    keep({ kind: 'mail-host', domain }, { state: 'hosts', hosts: ['mx.example'] });
    keep({ kind: 'catch-all', domain }, { state: 'selective' });
    keep({ kind: 'mailbox', email }, { state: 'accepted', code: 250 });
    keep({ kind: 'mailbox', email: `x@${domain}` }, { state: 'no-mailbox', code: 550 });
  }
  const said = lookupOrders(db, own, ['poor', 'dear', 'cheap', 'gone'], 'addresses', NOW);
  expect(said.people).toBe(120);
  expect(said.byHand.ids).toEqual(['poor', 'dear', 'cheap']);
  expect(said.byHand.found).toBeCloseTo(2 / 3, 1);
  expect(said.cheapest.ids[0]).toBe('cheap');
  expect(said.cheapest.cents).toBeLessThan(said.byHand.cents / 2);
  expect(said.cheapest.found).toBeGreaterThan(said.byHand.found - 1e-6);
  expect(said.cheapest.less.low).toBeGreaterThan(0);
  // What is paid in advance costs nothing more.
  const plan = { credits: 50, cents: 900 };
  const paid = { ...own, finders: own.finders.map((one) => (one.id === 'dear' ? { ...one, plan } : one)) };
  expect(lookupOrders(db, paid, ['cheap'], 'addresses', NOW)).toMatchObject({
    each: [{ creditsLeft: 50 }, { creditsLeft: 0 }, { creditsLeft: 0 }],
    byHand: { ids: ['cheap'] },
    cheapest: { ids: ['dear'], cents: 0 },
  });
  // Where nobody is asked by hand, what finds the most is advised.
  const none = lookupOrders(db, own, [], 'addresses', NOW);
  expect([none.byHand.found, none.cheapest.ids]).toEqual([0, said.cheapest.ids]);
});

test('how finders were to deal with is said of the last 30 days', () => {
  const call = (day: string, ms: number, outage = '') => keepCall(db, { who: 'dear', ms, outage }, day);
  call('2026-10-20', 9000, 'it does not accept the key');
  for (const ms of [200, 400]) call('2026-11-18', ms);
  call('2026-11-19', 30, 'it answered 503');
  call('2026-11-20', 300);
  expect(lookupOrders(db, own, [], 'addresses', NOW).each[0]).toMatchObject({
    ms: 300,
    outages: 1,
    lastOutage: 'it answered 503',
  });
});

test('phone services are ordered by what they listed, whatever the pass', () => {
  const service = (id: string, priceCents: number, pays: 'answer' | 'question') => ({
    ...finder(id, priceCents, 'valid'),
    pays,
  });
  const phones = settings.parse({ phoneServices: [service('chime', 1, 'question'), service('pull', 9, 'answer')] });
  for (let n = 0; n < 90; n++)
    for (const [id, listed] of [
      ['chime', n % 3 === 0],
      ['pull', n % 2 === 0],
    ] as const)
      keepFact(
        db,
        { kind: 'phones', service: id, firstName: n % 5 ? 'Bill' : '', lastName: 'Hart', address: `${n} Mill Lane` },
        {
          phones: listed ? [{ number: '020 7946 0123', firstName: 'Bill', lastName: 'Hart', kind: null }] : [],
          priceCents: 1,
          pays: id === 'chime' ? 'question' : 'answer',
        },
        1,
        null,
      );
  const { people, each, byHand, cheapest } = lookupOrders(db, phones, ['pull', 'chime'], 'phones', NOW);
  expect(each.map(({ id, asked, right, wrong }) => [id, asked, right, wrong])).toEqual([
    ['chime', 90, 30, 0],
    ['pull', 90, 45, 0],
  ]);
  expect([each[0]!.low < 1 / 3, each[0]!.high > 1 / 3]).toEqual([true, true]);
  expect([people, cheapest.ids]).toEqual([90, ['chime', 'pull']]);
  expect(cheapest.cents).toBeLessThan(byHand.cents);
  // A half, a third, and the sixth that both list once.
  expect(byHand.found).toBeCloseTo(1 / 2 + 1 / 3 - 1 / 6, 1);
});
