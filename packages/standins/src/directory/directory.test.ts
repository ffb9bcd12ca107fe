import { callLog, PLAIN } from '../kit/call-log';
import { buildProfiles } from '../world/profiles';
import { buildWorld } from '../world/world';
import { startDirectory } from './directory';
import { ORGANISATIONS, passing, PEOPLE } from './where';

jest.setTimeout(30_000);
const profiles = buildProfiles(buildWorld(7));
const { people, firms } = profiles;

test('phrases, words in any order, choices and spans are told apart', () => {
  const find = (where: object[]) => passing(people, PEOPLE, where)!;
  const title = (words: string, in_order: boolean) => [
    { attribute: 'job_title', op: 'any_of', phrases: [{ words, in_order }] },
  ];
  const exact = find(title('quality manager', true));
  const loose = find(title('quality manager', false));
  expect(exact.every(({ person }) => person.title === 'Quality Manager')).toBe(true);
  expect(loose.length).toBeGreaterThan(exact.length * 1.5);
  // The misfits are those whose words stand elsewhere in what they wrote.
  const misfit = loose.find(({ person }) => !/quality/i.test(person.title))!;
  expect(misfit.headline).toMatch(/quality/i);
  const sector = [{ attribute: 'sector', op: 'any_of', phrases: [{ words: 'Dairy', in_order: true }] }];
  expect(find(sector)).toEqual([]);
  const span = { attribute: 'staff_growth', op: 'any_of', between: [{ min: 1, max: 7 }] };
  const grown = passing(firms, ORGANISATIONS, [span])!;
  expect(grown.every(({ staffGrowth }) => staffGrowth! >= 1 && staffGrowth! <= 7)).toBe(true);
  const rest = passing(firms, ORGANISATIONS, [{ ...span, op: 'none_of' }])!;
  expect(grown.length + rest.length).toBe(firms.length);
  expect(passing(firms, ORGANISATIONS, [{ ...span, attribute: 'shoe_size' }])).toBeNull();
});

const toClose: { close: () => Promise<unknown> }[] = [];
afterAll(() => Promise.all(toClose.map((app) => app.close())));

test('it wants a sign-in, shows pages of 25 up to its cap, and people join as days go by', async () => {
  const port = 21_000 + (process.pid % 900);
  const shared = { log: callLog(), scenario: { ...PLAIN, shifting: false } };
  const app = await startDirectory(profiles, port, shared);
  toClose.push(app);
  const post = async (path: string, body: object, session = '') => {
    for (;;) {
      const response = await fetch(`http://127.0.0.1:${port}${path}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', 'x-session': session },
        body: JSON.stringify(body),
      });
      if (response.status === 503 || response.status === 429) continue;
      return { status: response.status, body: (await response.json()) as Record<string, unknown> };
    }
  };
  expect((await post('/v1/tally/people', { where: [] })).status).toBe(401);
  expect((await post('/v1/session', { key: 'wrong' })).status).toBe(403);
  const token = String((await post('/v1/session', { key: 'waymark-demo-key' })).body['token']);
  const { total } = (await post('/v1/tally/people', { where: [] }, token)).body;
  expect(total).toBeGreaterThan(39_000);
  const page = (n: number) => post('/v1/search/people', { where: [], page: n }, token);
  const [first, last, beyond] = [await page(1), await page(100), await page(101)];
  expect([first.body['pages'], (first.body['results'] as object[]).length, last.status, beyond.status]).toEqual([
    100, 25, 200, 400,
  ]);
  expect((await post('/v1/tally/people/by/school', { where: [] }, token)).status).toBe(404);
  const titles = (await post('/v1/tally/people/by/job_title', { where: [] }, token)).body as unknown as {
    values: { total: number }[];
  };
  expect(titles.values.length).toBeGreaterThan(10);
  expect(titles.values.length).toBeLessThanOrEqual(50);
  const counts = titles.values.map((title) => title.total);
  expect(counts).toEqual([...counts].sort((a, b) => b - a));
  const { values } = (await post('/v1/tally/people/by/country', { where: [] }, token)).body as unknown as {
    values: { total: number }[];
  };
  expect(values.reduce((sum, value) => sum + value.total, 0)).toBe(total);
  shared.scenario = { ...shared.scenario, daysAhead: 30 };
  expect((await post('/v1/tally/people', { where: [] }, token)).body['total']).toBe(people.length);
});
