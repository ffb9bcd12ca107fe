import { callLog, PLAIN } from '../kit/call-log';
import { buildWorld } from '../world/world';
import { startFinder } from './finder';

const PORT = 23_000 + (process.pid % 900);
const world = buildWorld(7);
const shared = { log: callLog(), scenario: { ...PLAIN } };
let app: Awaited<ReturnType<typeof startFinder>>;
beforeAll(async () => (app = await startFinder(world, PORT, shared)));
afterAll(() => app.close());

async function call(method: string, path: string, body?: object, key = 'lantern-demo-key') {
  const response = await fetch(`http://127.0.0.1:${PORT}${path}`, {
    method,
    headers: { authorization: `Bearer ${key}`, ...(body && { 'content-type': 'application/json' }) },
    ...(body && { body: JSON.stringify(body) }),
  });
  return {
    status: response.status,
    retry: response.headers.get('retry-after'),
    body: (await response.json()) as object,
  };
}
/** Asked as slowly as it wants to be, and again after an outage. */
async function lookUp({ firstName, lastName, firm }: (typeof world.people)[number]) {
  for (;;) {
    const { status, body } = await call('POST', '/v1/lookups', {
      first_name: firstName,
      last_name: lastName,
      domain: firm.domain,
    });
    if (status === 200) return body as { lookup: string; email: string | null; price_cents: number };
    await new Promise((resolve) => setTimeout(resolve, status === 429 ? 300 : 0));
  }
}

test('without the key nothing is answered; what is lacking is said', async () => {
  expect((await call('GET', '/v1/account', undefined, 'wrong')).status).toBe(401);
  expect(await call('POST', '/v1/lookups', { first_name: 'Maren' })).toMatchObject({
    status: 400,
    body: { error: 'first_name, last_name and domain are needed' },
  });
});

test('it knows most people, is sometimes wrong, and says the same each time', async () => {
  const people = world.people.slice(0, 120);
  const answers = [];
  for (const person of people) answers.push(await lookUp(person));
  const known = answers.filter(({ email }) => email !== null);
  const wrong = known.filter(({ email }) => !world.personByEmail.has(email!));
  expect(known.length / people.length).toBeGreaterThan(0.6);
  expect(known.length / people.length).toBeLessThan(0.85);
  expect(wrong.length).toBeGreaterThan(0);
  expect(wrong.length / known.length).toBeLessThan(0.2);
  expect(await lookUp(people[0]!)).toEqual(answers[0]);
  expect(new Set(answers.map(({ lookup }) => lookup)).size).toBe(people.length);
});

test('a purchase is made once, however often it is sent, and only of what was offered', async () => {
  let offer: Awaited<ReturnType<typeof lookUp>>;
  let at = 0;
  do offer = await lookUp(world.people[at++]!);
  while (!offer.email);
  const buy = () => call('PUT', `/v1/purchases/${offer.lookup}`);
  expect((await buy()).body).toEqual({ lookup: offer.lookup, email: offer.email, bought: true });
  expect((await buy()).status).toBe(200);
  expect((await call('PUT', '/v1/purchases/lk-nothing')).status).toBe(404);
  expect((await call('GET', '/v1/account')).body).toEqual({
    purchases: [{ lookup: offer.lookup, email: offer.email, cents: 15 }],
    cents: 15,
  });
});

test('it keeps its pace, says when to come back, and can be told to be out of order', async () => {
  await new Promise((resolve) => setTimeout(resolve, 1000 - (Date.now() % 1000)));
  const answers = await Promise.all(Array.from({ length: 200 }, () => call('GET', '/v1/account')));
  const refused = answers.filter(({ status }) => status === 429);
  expect(refused.length).toBeGreaterThan(0);
  expect(refused.every(({ retry }) => retry === '1')).toBe(true);
  await call('PUT', '/control/scenario', { finderStatus: 500 });
  await new Promise((resolve) => setTimeout(resolve, 1000));
  expect((await call('GET', '/v1/account')).status).toBe(500);
  await call('PUT', '/control/scenario', {});
});
