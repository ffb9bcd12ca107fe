import { ANY_AGE, judge } from '@sieve/core';
import { settings } from '@sieve/contract';
import { testDb } from '../testing/fixtures';
import { keepBounces } from './bounces';
import { factsAt, keepFact } from './facts';

const { db } = testDb();
const { lists } = settings.parse({});
const DAY = 86_400_000;
const domain = 'tidewell.example';
const at = (name: string) => `${name}@${domain}`;
const accepted = (name: string, time: number) =>
  keepFact(db, { kind: 'mailbox', email: at(name) }, { state: 'accepted', code: 250 }, time, null);
const verdict = (name: string, time: number) =>
  judge(at(name), { facts: factsAt(db, time, { ...ANY_AGE, agesMs: 90 * DAY }), lists }).done?.reason;

test('what came back is nobody’s; a domain that accepts and sends back is doubted, also when it accepts again', () => {
  keepFact(db, { kind: 'mail-host', domain }, { state: 'hosts', hosts: ['mx.example'] }, 0, null);
  keepFact(db, { kind: 'catch-all', domain }, { state: 'selective' }, 0, null);
  for (const name of ['maren', 'idris', 'rhona', 'orla']) accepted(name, 0);
  const told = keepBounces(
    db,
    [`${at('maren')};5.1.1`, `${at('rhona')};5.2.2`, `${at('ffion')};550`, `${at('orla')};5.7.1`, 'nobody'].join('\n'),
    DAY,
  );
  expect(told).toEqual({ invalid: 2, full: 1, refused: 1, unread: 1, domains: [domain] });
  expect(['maren', 'rhona', 'ffion', 'orla', 'idris'].map((name) => verdict(name, 2 * DAY))).toEqual([
    'no-mailbox',
    'mailbox-full',
    'no-mailbox',
    'accepted',
    'accepted',
  ]);
  // Its server says yes again; what came back is not forgotten.
  accepted('maren', 3 * DAY);
  expect(verdict('maren', 4 * DAY)).toBe('bounces-later');
  keepBounces(db, at('idris'), 5 * DAY);
  expect(verdict('orla', 6 * DAY)).toBe('bounces-later');
});
