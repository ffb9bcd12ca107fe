import type { FastifyInstance } from 'fastify';
import type { CallLog, Scenario } from '../kit/call-log';
import { chance, pick } from '../kit/chance';
import type { Worker, World } from '../world/world';
import { card, definition, shell, type Member } from './markup';

export const GUILD = 'curdguild.example';
export const PAGES = 40;
export const A_PAGE = 24;
/** Where nobody further down has any wheels for sale. */
const SOLD_OUT_FROM = 612;
/** Pages on which the site behaves as sites do. */
const SLOW_PAGE = 6;
const FAILS_ONCE = 9;
const ASKS_TO_WAIT = 13;
const OTHER_MARKUP = 18;
const REPEATS_EVERY = 5;
const SLOW_MS = 1500;
const JOIN_ADAY = 3;

interface Shared {
  log: CallLog;
  scenario: Scenario;
}

/**
 * The site of a trade guild: 960 members on 40 pages of 24 at `/members?p=1`, sortable, those with most wheels for sale first; adverts
 * stand between them, some lack a phone, sponsors and news stand beside. One page is slow, one fails once (503), one asks once to wait
 * (429), one has another markup, some repeat a member of the page before, and new members join as days go by. Its robots.txt keeps
 * `/private/` to itself and asks for half a second between two pages.
 */
export async function guildRoutes(app: FastifyInstance, world: World, shared: Shared): Promise<void> {
  const all = membersOf(world, PAGES * A_PAGE + 60);
  const met = new Set<number>();

  app.addHook('onRequest', async (request, reply) => {
    shared.log.add('web', request.originalUrl);
    if (shared.scenario.webStatus > 0) return reply.status(shared.scenario.webStatus).send('Out of order.');
  });
  app.get('/robots.txt', (_, reply) =>
    reply.type('text/plain').send('User-agent: *\nDisallow: /private/\nAllow: /\nCrawl-delay: 0.5\n'),
  );
  app.get('/', (_, reply) => reply.redirect('/members?p=1'));
  app.get('/private/ledger', (_, reply) =>
    reply.type('text/html').send('<table><tr><td>kept to ourselves</td></tr></table>'),
  );
  app.get('/away', (_, reply) => reply.redirect('http://127.0.0.1:1/'));
  app.get('/handbook.pdf', (_, reply) => reply.type('application/pdf').send(Buffer.from('%PDF-1.4')));
  app.get('/members', async (request, reply) => {
    const query = request.query as { p?: string; sort?: string };
    const page = Math.min(PAGES, Math.max(1, Math.floor(Number(query.p)) || 1));
    const sort = query.sort === 'name' || query.sort === 'town' ? query.sort : 'stock';
    const isFirst = !met.has(page);
    met.add(page);
    if (page === FAILS_ONCE && isFirst) return reply.status(503).type('text/html').send('<p>One moment.</p>');
    if (page === ASKS_TO_WAIT && isFirst) return reply.status(429).header('retry-after', '2').send('Slower, please.');
    if (page === SLOW_PAGE) await new Promise((resolve) => setTimeout(resolve, SLOW_MS));
    const joined = Math.min(60, Math.floor(shared.scenario.daysAhead) * JOIN_ADAY);
    const listed = sorted([...all.slice(all.length - joined), ...all.slice(0, PAGES * A_PAGE)], sort);
    const from = (page - 1) * A_PAGE;
    const repeats = page > 1 && page % REPEATS_EVERY === 0;
    const members = listed.slice(repeats ? from - 1 : from, from + A_PAGE);
    const write = page === OTHER_MARKUP ? definition : card;
    return reply.type('text/html; charset=utf-8').send(shell({ page, pages: PAGES, sort, body: write(members) }));
  });
}

function sorted(members: Member[], by: 'stock' | 'name' | 'town'): Member[] {
  if (by === 'stock') return members.sort((a, b) => b.stock - a.stock);
  return members.sort((a, b) => a[by].localeCompare(b[by]));
}

/** People of dairies, no two of one name; those that join later come last and have the most to sell. */
function membersOf(world: World, count: number): Member[] {
  const seen = new Set<string>();
  const chosen: Worker[] = [];
  for (const person of world.people) {
    const name = `${person.firstName} ${person.lastName}`;
    if (person.firm.kind !== 'dairy' || seen.has(name)) continue;
    seen.add(name);
    chosen.push(person);
    if (chosen.length === count) break;
  }
  return chosen.map((person, i): Member => {
    const isLater = i >= PAGES * A_PAGE;
    return {
      name: `${person.firstName} ${person.lastName}`,
      title: person.title,
      firm: person.firm.name,
      town: person.firm.city,
      phone: chance('guild phone', person.id) < 0.25 ? '' : shown(person.phone),
      slug: `${person.firm.name} ${person.id}`.toLowerCase().replace(/[^a-z0-9]+/g, '-'),
      stock: isLater ? 70 : Math.max(0, Math.ceil(60 * (1 - i / SOLD_OUT_FROM))),
      cheese: pick(['blue', 'washed rind', 'hard', 'soft', 'goat', 'cheddar'], 'cheese', person.id),
    };
  });
}

/** British numbers as they are written there. */
const shown = (phone: string): string =>
  phone.replace(/^\+4420(\d{4})(\d{4})$/, '020 $1 $2').replace(/^\+44113(\d{3})(\d{4})$/, '0113 $1 $2');
