import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { gzipSync } from 'node:zlib';
import { AppError } from '../../errors';
import { AskedToWait } from './asked-to-wait';
import { fetchPage } from './fetch-page';
import { robotsOf } from './robots';
import { visitor } from './visit';

let answer: (request: IncomingMessage, response: ServerResponse) => void;
let asked: string[] = [];
const server = createServer((request, response) => {
  asked.push(request.url!);
  answer(request, response);
});
beforeAll(() => new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve)));
afterAll(() => new Promise((resolve) => server.close(resolve)));
beforeEach(() => (asked = []));

const SITE = 'https://guild.example';
const web = () => ({
  simulatedHosts: ['guild.example'],
  simulatedAt: `127.0.0.1:${(server.address() as AddressInfo).port}`,
});
const signal = new AbortController().signal;
const nowhere = () => Promise.resolve();
const robots = async (text: string) => {
  answer = (_, response) => void response.writeHead(200, { 'content-type': 'text/plain' }).end(text);
  return robotsOf(`${SITE}/`, web(), signal);
};
const codeOf = async (asking: Promise<unknown>) =>
  asking.then(
    () => 'answered',
    (error: unknown) => (error instanceof AppError ? `${error.code} ${error.details['reason'] ?? ''}`.trim() : error),
  );

// RFC 9309: the longest match (2.2.2), special characters (2.2.3), groups (2.2.1), and the simple example of 5.1 in its shape.
test('robots.txt is read as its standard says', async () => {
  const simple = await robots(`User-Agent: *
Disallow: *.gif$
Disallow: /example/
Allow: /publications/

User-Agent: foobot
Disallow:/
Allow:/example/page.html
Allow:/example/allowed.gif

User-Agent: bazbot
Disallow: /example/page.html
`);
  const allows = (path: string) => simple(SITE + path).allows;
  expect([allows('/publications/a'), allows('/example/page.html'), allows('/picture.gif'), allows('/else')]).toEqual([
    true,
    false,
    false,
    true,
  ]);
  const longest = await robots('User-Agent: *\nAllow: /example/page/\nDisallow: /example/page/disallowed.gif\n');
  expect([longest(`${SITE}/example/page/`).allows, longest(`${SITE}/example/page/disallowed.gif`).allows]).toEqual([
    true,
    false,
  ]);
  const equal = await robots('User-Agent: *\nAllow: /a\nDisallow: /a\n');
  expect(equal(`${SITE}/a`).allows).toBe(true);
  const own = await robots('User-agent: CrispSieve\nDisallow: /ours\nCrawl-delay: 7\n\nUser-agent: *\nDisallow: /\n');
  expect([own(`${SITE}/ours`), own(`${SITE}/theirs`)]).toEqual([
    { allows: false, seconds: 7, found: true },
    { allows: true, seconds: 7, found: true },
  ]);
});

// RFC 9309 2.3.1.3 and 2.3.1.4: unavailable (4xx) allows all, unreachable (5xx) allows nothing, and is told as what it is.
test('a robots.txt that is not there allows; one that cannot be had is an outage and no refusal', async () => {
  const withStatus = (status: number, headers = {}) => {
    answer = (_, response) => void response.writeHead(status, headers).end();
    return robotsOf(`${SITE}/`, web(), signal);
  };
  expect((await withStatus(404))(`${SITE}/x`)).toEqual({ allows: true, seconds: 0, found: false });
  expect((await withStatus(403))(`${SITE}/x`).allows).toBe(true);
  expect(await codeOf(withStatus(503))).toBe('page-down it answered 503');
  await expect(withStatus(429, { 'retry-after': '120' })).rejects.toMatchObject({ waitMs: 120_000 });
  answer = (request) => request.socket.destroy();
  expect(await codeOf(robotsOf(`${SITE}/`, web(), signal))).toBe('page-down it broke off');
});

test('a site’s robots.txt is asked once for all of its pages, and again after an outage', async () => {
  let isUp = false;
  answer = (request, response) => {
    if (!isUp) return void response.writeHead(500).end();
    return void response
      .writeHead(200, { 'content-type': request.url === '/robots.txt' ? 'text/plain' : 'text/html' })
      .end('');
  };
  const { visit } = visitor(web());
  expect(await codeOf(visit(`${SITE}/a`, signal))).toBe('page-down it answered 500');
  isUp = true;
  await visit(`${SITE}/a`, signal);
  await visit(`${SITE}/b`, signal);
  expect(asked).toEqual(['/robots.txt', '/robots.txt', '/a', '/b']);
});

test('what is no page, not there, or too busy is told as that; a page that fails once is asked again', async () => {
  let times = 0;
  let given: { status: number; headers: Record<string, string>; body: string | Buffer };
  answer = (request, response) => {
    if (request.url === '/robots.txt') return void response.writeHead(404).end();
    if (request.url === '/once' && times++ === 0) return void response.writeHead(502).end();
    return void response.writeHead(given.status, given.headers).end(given.body);
  };
  const visit = (path: string, status: number, headers: Record<string, string>, body: string | Buffer = '') => {
    given = { status, headers, body };
    return visitor(web()).visit(SITE + path, signal);
  };
  const html = { 'content-type': 'text/html' };
  expect((await visit('/once', 200, html, '<p>here')).html).toBe('<p>here');
  expect(await codeOf(visit('/x', 200, { 'content-type': 'application/pdf' }))).toBe('no-page');
  expect(await codeOf(visit('/x', 410, html))).toBe('page-down it answered 410');
  await expect(visit('/x', 503, { ...html, 'retry-after': '3' })).rejects.toBeInstanceOf(AskedToWait);
  // Text by the charset of the header, else by what the page says of itself; packed or not.
  const latin = Buffer.from('<meta charset="windows-1252"><p>Zoé Venn', 'latin1');
  expect((await visit('/x', 200, { 'content-type': 'text/html; charset=windows-1252' }, latin)).html).toContain('Zoé');
  expect((await visit('/x', 200, html, latin)).html).toContain('Zoé');
  const packed = { ...html, 'content-encoding': 'gzip' };
  expect((await visit('/x', 200, packed, gzipSync('<p>Zoé'))).html).toBe('<p>Zoé');
  expect(await codeOf(visit('/x', 200, packed, gzipSync(Buffer.alloc(17 * 1024 * 1024))))).toMatch(/larger than 16 MB/);
}, 40_000);

test('it goes along with a few redirects, never round and round, never to where nobody should look', async () => {
  answer = (request, response) => {
    const step = Number(/\d+/.exec(request.url!)![0]);
    if (step === 3) return void response.writeHead(200, { 'content-type': 'text/html' }).end('there');
    return void response.writeHead(302, { location: `/hop/${step + 1}` }).end();
  };
  const led: string[] = [];
  const found = await fetchPage(`${SITE}/hop/0`, web(), signal, async (to) => void led.push(to.pathname));
  expect([found.address, led]).toEqual([`${SITE}/hop/3`, ['/hop/1', '/hop/2', '/hop/3']]);
  expect(await codeOf(fetchPage(`${SITE}/hop/4`, web(), signal, nowhere))).toMatch(/without end/);
  // IANA's special-purpose addresses, however they are written.
  for (const host of [
    '127.0.0.1',
    '10.1.2.3',
    '169.254.169.254',
    '192.168.0.1',
    '0.0.0.0',
    '[::1]',
    '[fe80::1]',
    '[::ffff:127.0.0.1]',
    '2130706433',
    '0x7f.1',
    'localhost',
  ])
    expect([host, await codeOf(fetchPage(`http://${host}/`, web(), signal, nowhere))]).toEqual([
      host,
      'private-address',
    ]);
});

test('a stop is a stop, in the middle of an answer, too', async () => {
  answer = (_, response) => void response.writeHead(200, { 'content-type': 'text/html' }).write('<p>');
  const stop = new AbortController();
  setTimeout(() => stop.abort(new Error('stopped')), 50);
  await expect(fetchPage(`${SITE}/slow`, web(), stop.signal, nowhere)).rejects.toThrow('stopped');
});
