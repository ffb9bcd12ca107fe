import { settings } from '@sieve/contract';
import { closeDb, openDb } from '../db/open';
import { join } from 'node:path';
import { readConfig } from '../config';
import { readSettings, saveSettings } from './store';

const db = openDb(':memory:', join(__dirname, '../../migrations'));
afterAll(() => closeDb(db));
const started = (port: number) =>
  readConfig({
    STANDIN_FINDER: String(port),
    STANDIN_DNS: String(port + 1),
    STANDIN_SMTP: String(port + 2),
    STANDIN_DIRECTORY: String(port + 3),
  }).shipped;

test('settings that were saved hold, and simulated services are where this start put them', () => {
  const first = started(5000);
  expect(readSettings(db, first)).toEqual(first);
  const own = {
    id: 'own',
    name: 'Own',
    url: 'https://finder.example',
    key: 'k',
    priceCents: 9,
    perSecond: 1,
    simulated: false,
  };
  saveSettings(db, {
    ...first,
    currency: 'EUR',
    finders: [...first.finders, own],
    pace: { ...first.pace, rowsADay: 100 },
  });
  const again = readSettings(db, started(7000));
  expect(again.currency).toBe('EUR');
  expect(again.finders.map(({ url }) => url)).toEqual(['http://127.0.0.1:7000', 'https://finder.example']);
  expect([again.nameServer, again.mail.port]).toEqual(['127.0.0.1:7001', 7002]);
  expect(again.directory).toMatchObject({ url: 'http://127.0.0.1:7003', simulated: true });
  expect(again.pace.rowsADay).toBe(100);
});

test('without stand-ins nothing outside is set up, and the pace is the safe one', () => {
  expect(readConfig({}).shipped).toEqual(settings.parse({}));
  // Common practice, no source.
  expect(settings.parse({}).pace).toMatchObject({ rowsADay: 2500, workingDays: true });
  expect(() => readConfig({ PORT: 'many' })).toThrow();
});
