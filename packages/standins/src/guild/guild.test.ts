import type { AddressInfo } from 'node:net';
import { request } from 'node:http';
import { callLog, PLAIN } from '../kit/call-log';
import { buildWorld } from '../world/world';
import { startWeb } from '../web/web';
import { A_PAGE, GUILD, PAGES } from './guild';

jest.setTimeout(30_000);

const shared = { log: callLog(), scenario: { ...PLAIN } };
let port: number;
let close: () => Promise<unknown>;
beforeAll(async () => {
  const app = await startWeb(buildWorld(7), 0, shared);
  port = (app.server.address() as AddressInfo).port;
  close = () => app.close();
});
afterAll(() => close());

const get = (path: string, host = GUILD) =>
  new Promise<{ status: number; headers: Record<string, unknown>; body: string }>((resolve, reject) => {
    const asked = request({ port, path, headers: { host } }, (response) => {
      let body = '';
      response.setEncoding('utf8').on('data', (part: string) => (body += part));
      response.once('end', () => resolve({ status: response.statusCode!, headers: response.headers, body }));
    });
    asked.once('error', reject).end();
  });
const membersOn = (body: string) => [...body.matchAll(/href="\/members\/([\w-]+)"/g)].map(([, slug]) => slug!);
const stockOn = (body: string) => [...body.matchAll(/in stock (\d+)/g)].map(([, n]) => Number(n));

test('the next links lead through forty pages to their end; each member is met, some twice, and two pages want patience', async () => {
  const met: string[] = [];
  const refused: number[] = [];
  let pages = 0;
  for (let path: string | undefined = '/members'; path !== undefined;) {
    const { status, headers, body } = await get(path);
    if (status !== 200) {
      refused.push(status);
      if (status === 429) expect(headers['retry-after']).toBe('2');
      continue;
    }
    pages++;
    met.push(...membersOn(body));
    path = /<a rel="next" href="([^"]+)"/.exec(body)?.[1];
  }
  expect([pages, refused]).toEqual([PAGES, [503, 429]]);
  expect(new Set(met).size).toBe(PAGES * A_PAGE);
  expect(met).toHaveLength(PAGES * A_PAGE + PAGES / 5);
});

test('most wheels come first and are sold out further down; adverts, gaps and another markup stand between', async () => {
  const first = await get('/members?p=1');
  const stock = stockOn(first.body);
  expect([...stock].sort((a, b) => b - a)).toEqual(stock);
  expect(first.body.match(/class="advert"/g)!.length).toBeGreaterThan(1);
  expect(first.body).toContain('no phone');
  const soldOut = stockOn((await get('/members?p=26')).body);
  expect([soldOut[0]! > 0, soldOut.at(-1)]).toEqual([true, 0]);
  const old = await get('/members?p=18');
  expect(old.body).not.toContain('<article');
  expect(membersOn(old.body)).toHaveLength(A_PAGE);
  const byName = (await get('/members?p=1&sort=name')).body;
  const names = [...byName.matchAll(/<h3>([^<]+)<\/h3>/g)].map(([, name]) => name!);
  expect([...names].sort((a, b) => a.localeCompare(b))).toEqual(names);
});

test('what it keeps to itself it says; it is one site; members join as days go by; it can be out of order', async () => {
  expect((await get('/robots.txt')).body).toMatch(/Disallow: \/private\/[^]*Crawl-delay: 0\.5/);
  expect((await get('/members', 'elsewhere.example')).status).toBe(404);
  const before = membersOn((await get('/members?p=1')).body);
  shared.scenario.daysAhead = 2;
  const after = membersOn((await get('/members?p=1')).body);
  expect(after.filter((slug) => !before.includes(slug))).toHaveLength(6);
  shared.scenario.webStatus = 500;
  expect((await get('/members')).status).toBe(500);
});
