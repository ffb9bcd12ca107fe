import Fastify, { type FastifyInstance } from 'fastify';
import { callLog, PLAIN } from '../kit/call-log';
import { homeOf } from '../world/homes';
import { buildWorld } from '../world/world';
import { phoneServices } from './phones';

const world = buildWorld(7);
const shared = { log: callLog(), scenario: { ...PLAIN } };
let app: FastifyInstance;
beforeAll(async () => {
  app = Fastify();
  await app.register(phoneServices(world, shared), { prefix: '/phones' });
});
afterAll(() => app.close());

async function ask(service: string, body: object, as = '') {
  for (;;) {
    const { statusCode, json } = await app.inject({
      method: 'POST',
      url: `/phones/${service}/v1/phones`,
      headers: { authorization: `Bearer ${service}-demo-key`, ...(as && { 'idempotency-key': as }) },
      payload: body,
    });
    if (statusCode !== 429)
      return { status: statusCode, ...json<{ phones?: { number: string; first_name: string }[] }>() };
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
}
const bill = async (service: string) =>
  (
    await app.inject({ url: `/phones/${service}/v1/account`, headers: { authorization: `Bearer ${service}-demo-key` } })
  ).json<{
    cents: number;
  }>().cents;
const line = ({ street, city, postcode }: { street: string; city: string; postcode: string }) =>
  `${street}, ${city}, ${postcode}`;

test('people are listed as they, an initial or a partner holds the line, some where they lived before; one that comes again under its name is charged once', async () => {
  const found = { full: 0, last: 0, before: 0 };
  const homes = world.people.slice(0, 400).flatMap((person) => {
    const home = homeOf(person);
    return home?.landline ? [{ person, home }] : [];
  });
  for (const { person, home } of homes.slice(0, 50)) {
    const { firstName: first_name, lastName: last_name } = person;
    const here = { last_name, address: line(home) };
    const [full, last] = [await ask('bellpull', { first_name, ...here }), await ask('bellpull', here)];
    expect(last.phones!.length).toBeGreaterThanOrEqual(full.phones!.length);
    found.full += Math.min(1, full.phones!.length);
    found.last += Math.min(1, last.phones!.length);
    if (home.before)
      found.before += Math.min(1, (await ask('bellpull', { last_name, address: line(home.before) })).phones!.length);
  }
  expect(found.full).toBeGreaterThan(10);
  expect(found.last).toBeGreaterThan(found.full);
  expect(found.before).toBeGreaterThan(0);
  const { person, home } = homes[0]!;
  const cents = await bill('doorchime');
  const again = { last_name: person.lastName, address: line(home) };
  for (let n = 0; n < 3; n++) await ask('doorchime', again, 'one');
  expect(await bill('doorchime')).toBe(cents + 1);
  await ask('doorchime', again, 'another');
  expect(await bill('doorchime')).toBe(cents + 2);
});

test('what is lacking is said, and one that is out of order charges nothing', async () => {
  expect(await ask('bellpull', { first_name: 'Maren' })).toMatchObject({ status: 400 });
  shared.scenario.phonesDown = ['doorchime'];
  expect(await ask('doorchime', { last_name: 'Hart', address: '1 Mill Lane, ZZ1 1AA' })).toMatchObject({ status: 503 });
});
