import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { MailResolver } from '../mail/resolver';
import { readSite } from './read-site';

let answer: (path: string, response: ServerResponse, request: IncomingMessage) => void;
let asked: string[] = [];
const server = createServer((request, response) => {
  asked.push(request.url!);
  if (request.url === '/robots.txt') return void response.end('User-agent: *\nDisallow: /kept\n');
  answer(request.url!, response, request);
});
beforeAll(() => new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve)));
afterAll(() => new Promise((resolve) => server.close(resolve)));
beforeEach(() => (asked = []));

const has: MailResolver = {
  addresses: async () => ['192.0.2.1'],
  hosts: async () => ({ state: 'hosts', hosts: ['mx.example'] }),
};
const read = (resolver: Partial<MailResolver> = {}) =>
  readSite(
    'firm.example',
    {
      simulatedHosts: ['example'],
      simulatedAt: `127.0.0.1:${(server.address() as AddressInfo).port}`,
      perSitePerSecond: 100,
    },
    { ...has, ...resolver },
    new AbortController().signal,
  );
const html = (response: ServerResponse, body: string) =>
  void response.writeHead(200, { 'content-type': 'text/html' }).end(body);

test('the home of a site is read and the pages that say most, what robots.txt keeps and other sites left', async () => {
  const links = [
    '/news',
    '/kept/about',
    '/login',
    '/about',
    '/about#team',
    'https://other.example/about',
    '/missing-products',
  ];
  const more = Array.from({ length: 9 }, (_, i) => `/product-${i}`);
  answer = (path, response) => {
    if (path === '/')
      return html(response, [...links, ...more].map((to) => `<a href="${to}">go</a>`).join(' ') + '<p>Home.');
    if (path.startsWith('/missing')) return void response.writeHead(404).end();
    return html(response, `<title>${path}</title><nav>menu</nav><p>We say ${path}. And more.`);
  };
  const said = await read();
  expect(said).toMatchObject({ state: 'read' });
  const pages = said.state === 'read' ? said.pages : [];
  expect(pages.map(({ path }) => path)).toEqual([
    '/',
    '/about',
    '/product-0',
    '/product-1',
    '/product-2',
    '/product-3',
  ]);
  expect(pages[1]).toEqual({ path: '/about', title: '/about', lines: ['We say /about.', 'And more.'] });
  expect(asked.filter((path) => path === '/robots.txt')).toHaveLength(1);
  expect(asked).not.toContain('/kept/about');
});

test('what is not there, kept back, or does not answer is told apart', async () => {
  const status = (code: number, headers = {}) => {
    answer = (_, response) => void response.writeHead(code, headers).end();
    return read();
  };
  expect(await status(404)).toEqual({ state: 'no-site' });
  expect(await status(429, { 'retry-after': '60' })).toEqual({ state: 'try-later' });
  const none = { addresses: async () => [] };
  expect(await read({ ...none, hosts: async () => ({ state: 'no-domain' }) })).toEqual({ state: 'no-domain' });
  expect(await read(none)).toEqual({ state: 'no-site' });
  // An outage of the name server is no “no”.
  expect(await read({ addresses: async () => null })).toEqual({ state: 'no-answer' });
  expect(await read({ ...none, hosts: async () => ({ state: 'failed' }) })).toEqual({ state: 'no-answer' });
  answer = (_, response) => void response.writeHead(301, { location: '/kept/home' }).end();
  expect(await read()).toEqual({ state: 'refused' });
  answer = (_, __, request) => request.socket.destroy();
  expect(await read()).toEqual({ state: 'no-answer' });
}, 40_000);
