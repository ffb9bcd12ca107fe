import { Resolver } from 'node:dns/promises';
import { parsePhoneNumberFromString } from 'libphonenumber-js/max';
import { startDns } from '../dns/dns';
import { callLog } from '../kit/call-log';
import { buildWorld, FIRMS, PEOPLE } from './world';

const world = buildWorld(7);

test('the world is the same for the same seed, and of the promised size', () => {
  expect([world.firms.length, world.people.length]).toEqual([FIRMS, PEOPLE]);
  const again = buildWorld(7).people[1234]!;
  expect(again).toEqual(world.people[1234]);
  expect(new Set(world.people.map(({ email }) => email)).size).toBe(PEOPLE);
});

test('nobody in it can be real: .example domains, phones kept for fiction', () => {
  expect(
    world.firms.every(({ domain, mailHost }) => domain.endsWith('.example') && mailHost.endsWith('.example')),
  ).toBe(true);
  const fiction = /^\+(442079460\d{3}|441134960\d{3}|1\d{3}55501\d{2}|6149157015\d)$/;
  for (const { phone } of world.people.slice(0, 3000)) {
    expect(phone).toMatch(fiction);
    expect(parsePhoneNumberFromString(phone)?.isValid()).toBe(true);
  }
});

// RFC 1035 over UDP, RFC 7505 null MX; asked by Node's own resolver.
test('names are answered', async () => {
  const port = 20_000 + (process.pid % 900);
  const dns = await startDns(world, port, callLog());
  const resolver = new Resolver({ timeout: 1000 });
  resolver.setServers([`127.0.0.1:${port}`]);
  const plain = world.firms.find(({ manner }) => manner === 'plain')!;
  const none = world.firms.find(({ manner }) => manner === 'none')!;
  expect((await resolver.resolveMx(plain.domain)).map(({ exchange }) => exchange)).toContain(plain.mailHost);
  expect(await resolver.resolve4(plain.mailHost)).toEqual(['127.0.0.1']);
  expect((await resolver.resolveMx(none.domain))[0]!.exchange).toBe('');
  await expect(resolver.resolveMx('nowhere.example')).rejects.toMatchObject({ code: 'ENOTFOUND' });
  dns.close();
});
