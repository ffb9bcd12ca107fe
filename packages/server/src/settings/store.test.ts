import { settings } from '@sieve/contract';
import { readConfig } from '../config';
import { testDb } from '../testing/fixtures';
import { readSettings, saveSettings, setSettingsState, settingsState, settingsVersion } from './store';

const { db } = testDb();
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
    capDayCents: 0,
    capMonthCents: 0,
    simulated: false,
    pays: 'valid' as const,
    plan: { credits: 0, cents: 0 },
  };
  saveSettings(
    db,
    {
      ...first,
      currency: 'EUR',
      finders: [...first.finders, own],
      pace: { ...first.pace, rowsADay: 100 },
    },
    0,
  );
  const again = readSettings(db, started(7000));
  expect(again.currency).toBe('EUR');
  expect(again.finders.map(({ url }) => url).filter((url) => !/7000\/./.test(url))).toEqual([
    'http://127.0.0.1:7000',
    'https://finder.example',
  ]);
  expect([again.nameServer, again.mail.port]).toEqual(['127.0.0.1:7001', 7002]);
  expect(again.phoneServices.map(({ url }) => new URL(url).port)).toEqual(['7000', '7000', '7000']);
  expect(again.directory).toMatchObject({ url: 'http://127.0.0.1:7003', simulated: true });
  expect(again.pace.rowsADay).toBe(100);
});

test('settings are saved upon what was read of them, and go back without their keys', () => {
  const read = settingsVersion(db);
  const before = settingsState(db);
  const now = readSettings(db, started(7000));
  saveSettings(db, { ...now, currency: 'USD' }, read);
  expect(() => saveSettings(db, now, read)).toThrow('changed meanwhile');
  expect(JSON.stringify(before)).not.toMatch(/"key":"(k|.*demo.*)"/);
  setSettingsState(db, { currency: before['currency'], finders: before['finders'] });
  const again = readSettings(db, started(7000));
  expect([again.currency, again.finders.find(({ id }) => id === 'own')!.key]).toEqual(['EUR', 'k']);
});

test('without stand-ins nothing outside is set up, and the pace is the safe one', () => {
  expect(readConfig({}).shipped).toEqual(settings.parse({}));
  // Common practice, no source.
  expect(settings.parse({}).pace).toMatchObject({ rowsADay: 2500, workingDays: true });
  expect(() => readConfig({ PORT: 'many' })).toThrow();
});
