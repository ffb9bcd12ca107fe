import { callLog, PLAIN } from '../kit/call-log';
import { buildWorld } from '../world/world';
import { startFinder } from './finder';

const PORT = 23_000 + (process.pid % 900);
const world = buildWorld(7);
const shared = { log: callLog(), scenario: { ...PLAIN } };
let app: Awaited<ReturnType<typeof startFinder>>;
beforeAll(async () => (app = await startFinder(world, PORT, shared)));
afterAll(() => app.close());

async function call(method: string, path: string, body?: object, key = 'lantern-demo-key', as = '') {
  const response = await fetch(`http://127.0.0.1:${PORT}${path}`, {
    method,
    headers: {
      authorization: `Bearer ${key}`,
      ...(body && { 'content-type': 'application/json' }),
      ...(as && { 'idempotency-key': as }),
    },
    ...(body && { body: JSON.stringify(body) }),
  });
  return {
    status: response.status,
    retry: response.headers.get('retry-after'),
    body: (await response.json()) as object,
  };
}
/** Asked as slowly as it wants to be. */
async function paced(...asked: Parameters<typeof call>) {
  for (;;) {
    const answer = await call(...asked);
    if (answer.status !== 429) return answer;
    await new Promise((resolve) => setTimeout(resolve, 300));
  }
}
/** Asked again after an outage, too. */
async function lookUp({ firstName, lastName, firm }: (typeof world.people)[number]) {
  for (;;) {
    const body = { first_name: firstName, last_name: lastName, domain: firm.domain };
    const answer = await paced('POST', '/v1/lookups', body);
    if (answer.status === 200) return answer.body as { lookup: string; email: string | null; price_cents: number };
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
  const buy = () => paced('PUT', `/v1/purchases/${offer.lookup}`);
  expect((await buy()).body).toEqual({
    lookup: offer.lookup,
    email: offer.email,
    bought: true,
    price_cents: 15,
    credits: 0,
  });
  expect((await buy()).status).toBe(200);
  expect((await paced('PUT', '/v1/purchases/lk-nothing')).status).toBe(404);
  expect((await paced('GET', '/v1/account')).body).toEqual({
    purchases: [{ lookup: offer.lookup, email: offer.email, cents: 15 }],
    cents: 15,
  });
});

test('it says who has most addresses, is sometimes wrong, and is paid for whom it names', async () => {
  const before = ((await paced('GET', '/v1/account')).body as { cents: number }).cents;
  let [named, right] = [0, 0];
  for (const { email, firstName, lastName } of world.people.slice(0, 60)) {
    const { person } = (await paced('POST', '/v1/people', { email }, undefined, email)).body as {
      person: { first_name: string; last_name: string } | null;
    };
    if (!person) continue;
    named++;
    if (person.first_name === firstName && person.last_name === lastName) right++;
  }
  expect([named / 60 > 0.5, named / 60 < 0.9, right / named > 0.8, right < named]).toEqual([true, true, true, true]);
  expect(((await paced('GET', '/v1/account')).body as { cents: number }).cents - before).toBe(15 * named);
  expect((await paced('POST', '/v1/people', { email: 'nobody@tidewell.example' })).body).toMatchObject({
    person: null,
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

test('each of the others has its key, and charges for what it says it charges for', async () => {
  const { firstName, lastName, firm } = world.people.find(({ firm }) => firm.country === 'GB')!;
  const body = { first_name: firstName, last_name: lastName, domain: firm.domain };
  expect((await call('POST', '/seamark/v1/lookups', body)).status).toBe(401);
  const until200 = async (id: string, as = '') => {
    for (;;) {
      const asked = await paced('POST', `/${id}/v1/lookups`, body, `${id}-demo-key`, as);
      if (asked.status === 200) return asked.body as { email: string | null };
    }
  };
  const bill = async (id: string) =>
    ((await paced('GET', `/${id}/v1/account`, undefined, `${id}-demo-key`)).body as { cents: number }).cents;
  // It knows Ireland only.
  expect((await until200('seamark')).email).toBeNull();
  for (const as of ['one', 'one', 'another']) await until200('glowworm', as);
  expect([await bill('seamark'), await bill('glowworm')]).toEqual([0, 4]);
  expect((await until200('beacon')).email).not.toBeNull();
  expect(await bill('beacon')).toBe(0);
  // Its plan holds 40 credits; whoever is asked about after them costs money.
  for (let n = 0; n < 40; n++) await until200('beacon', `again ${n}`);
  expect(await bill('beacon')).toBe(28);
});
