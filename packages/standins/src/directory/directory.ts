import Fastify, { type FastifyInstance, type FastifyReply } from 'fastify';
import { PLAIN, type CallLog, type Scenario } from '../kit/call-log';
import { chance } from '../kit/chance';
import type { FirmProfile, PersonProfile, Profiles, Vacancy } from '../world/profiles';
import { ORGANISATIONS, passing, PEOPLE, VACANCIES, type Kind } from './where';

const KEY = 'waymark-demo-key';
const PER_SECOND = 40;
const PAGE = 25;
/** Pages that a search shows, however many rows it has. */
const PAGES: Record<Kind, number> = { people: 100, organisations: 40, vacancies: 40 };
const SESSION_SECONDS = 900;
const DAY_MS = 86_400_000;
/** A result is kept so long, since it is asked for page by page. */
const KEPT_MS = 60_000;

interface Shared {
  log: CallLog;
  scenario: Scenario;
}

/**
 * A directory of people, organisations and vacancies over HTTP. `POST /v1/session` signs in with a key; a session ends
 * after a while (401). `POST /v1/tally/KIND` counts, `POST /v1/tally/KIND/by/ATTRIBUTE` counts the values of some
 * attributes, of titles the most common, `POST /v1/find` knows a website or a profile link, `POST /v1/search/KIND` shows one page of 25, up to a cap of pages. It keeps a pace (429), is slow or fails now
 * and then, its results shift a little between two pages, and new people join as days go by.
 */
export async function startDirectory(profiles: Profiles, port: number, shared: Shared): Promise<FastifyInstance> {
  const app = Fastify({ forceCloseConnections: true, bodyLimit: 4 * 1024 * 1024 });
  const started = Date.now();
  const sessions = new Map<string, number>();
  let window = { second: 0, calls: 0 };
  let calls = 0;
  let signIns = 0;

  const days = () => (Date.now() - started) / DAY_MS + shared.scenario.daysAhead;
  const listed = () => {
    const now = days();
    return profiles.people.filter(({ joinsAfterDays }) => joinsAfterDays <= now);
  };
  const find = (kind: Kind, where: unknown) =>
    kind === 'people'
      ? passing(listed(), PEOPLE, where)
      : kind === 'organisations'
        ? passing(profiles.firms, ORGANISATIONS, where)
        : passing(profiles.vacancies, VACANCIES, where);
  const found = new Map<string, { at: number; rows: ReturnType<typeof find> }>();
  const rowsOf = (kind: Kind, where: unknown) => {
    const key = JSON.stringify([kind, where, shared.scenario.daysAhead]);
    const known = found.get(key);
    if (known && Date.now() - known.at < KEPT_MS) return known.rows;
    if (found.size > 60) found.clear();
    const rows = find(kind, where);
    found.set(key, { at: Date.now(), rows });
    return rows;
  };

  app.addHook('onRequest', async (request, reply) => {
    if (request.url.startsWith('/control')) return;
    const second = Math.floor(Date.now() / 1000);
    window = window.second === second ? { second, calls: window.calls + 1 } : { second, calls: 1 };
    if (window.calls > PER_SECOND) return reply.status(429).header('retry-after', '1').send({ error: 'too fast' });
    const { directoryStatus, directoryDelayMs } = shared.scenario;
    if (directoryDelayMs > 0) await new Promise((resolve) => setTimeout(resolve, directoryDelayMs));
    if (directoryStatus > 0) return reply.status(directoryStatus).send({ error: 'out of order' });
    if (request.url === '/v1/session') return;
    const ends = sessions.get(String(request.headers['x-session'])) ?? 0;
    if (Date.now() > ends) return reply.status(401).send({ error: 'sign in again' });
  });

  app.post('/v1/session', (request, reply) => {
    if ((request.body as { key?: string } | null)?.key !== KEY) return reply.status(403).send({ error: 'unknown key' });
    const token = `s-${++signIns}-${Math.floor(chance('session', signIns) * 1e9).toString(36)}`;
    const seconds = shared.scenario.sessionSeconds || SESSION_SECONDS;
    sessions.set(token, Date.now() + seconds * 1000);
    shared.log.add('directory sign-in', token);
    return reply.send({ token, expires_in: seconds });
  });

  const asked = (request: { params: unknown; body: unknown }, reply: FastifyReply) => {
    const { kind } = request.params as { kind: Kind };
    const { where, page = 1 } = (request.body ?? {}) as { where?: unknown; page?: number };
    const rows = kind in PAGES ? rowsOf(kind, where) : null;
    if (!rows) void reply.status(400).send({ error: 'a filter could not be read' });
    return rows && { kind, rows, page };
  };

  app.post('/v1/tally/:kind', (request, reply) => {
    const found = asked(request, reply);
    if (!found) return reply;
    shared.log.add('directory tally', found.kind);
    return reply.send({ total: found.rows.length });
  });

  app.post('/v1/tally/:kind/by/:attribute', (request, reply) => {
    const found = asked(request, reply);
    if (!found) return reply;
    const { attribute } = request.params as { attribute: string };
    const table = { people: PEOPLE, organisations: ORGANISATIONS, vacancies: VACANCIES }[found.kind];
    const known = Object.hasOwn(table, attribute) ? table[attribute] : undefined;
    if (!known?.tallied) return reply.status(404).send({ error: 'not tallied' });
    shared.log.add('directory tally', `${found.kind} by ${attribute}`);
    const totals = new Map<string, number>();
    for (const row of found.rows) {
      const value = String(known.of(row as never) ?? '');
      if (value) totals.set(value, (totals.get(value) ?? 0) + 1);
    }
    const most = known.tallied === true ? totals.size : known.tallied;
    const values = [...totals].sort(([, a], [, b]) => b - a).slice(0, most);
    return reply.send({ values: values.map(([value, total]) => ({ value, total })) });
  });

  app.post('/v1/search/:kind', async (request, reply) => {
    const wanted = asked(request, reply);
    if (!wanted) return reply;
    const { kind, rows, page } = wanted;
    if (!Number.isInteger(page) || page < 1 || page > PAGES[kind])
      return reply.status(400).send({ error: `pages go from 1 to ${PAGES[kind]}` });
    calls++;
    shared.log.add('directory page', `${kind} ${page}`);
    if (chance('fails', calls) < 0.01) return reply.status(503).send({ error: 'try again' });
    if (chance('slow', calls) < 0.01) await new Promise((resolve) => setTimeout(resolve, 600));
    const inOrder = ordered(rows, shared.scenario.shifting ? Math.floor(calls / 5) : 0);
    return reply.send({
      total: rows.length,
      page,
      pages: Math.min(PAGES[kind], Math.ceil(rows.length / PAGE)),
      results: inOrder.slice((page - 1) * PAGE, page * PAGE).map(shown),
    });
  });

  app.post('/v1/find', (request, reply) => {
    const { link = '' } = (request.body ?? {}) as { link?: string };
    shared.log.add('directory find', link);
    const place = link
      .toLowerCase()
      .replace(/^https?:\/\//, '')
      .replace(/^www\./, '')
      .replace(/\/+$/, '');
    const id = /^directory\.example\/p\/(\d+)$/.exec(place)?.[1];
    const people = listed().filter(({ person }) =>
      id ? person.id === Number(id) : person.firm.domain === place.split('/')[0],
    );
    const firms = profiles.firms.filter(({ firm }) =>
      id ? firm === people[0]?.person.firm : firm.domain === place.split('/')[0],
    );
    return reply.send({ organisations: firms.map(shown), people: people.slice(0, PAGE).map(shown) });
  });

  app.get('/control/calls', () => shared.log.counts());
  app.put('/control/scenario', (request) => {
    shared.scenario = { ...PLAIN, ...(request.body as Partial<Scenario>) };
    return shared.scenario;
  });
  await app.listen({ host: '127.0.0.1', port });
  return app;
}

const idOf = (row: Row): number => ('person' in row ? row.person.id : 'role' in row ? row.id : row.firm.id);

/** Where a row stands in the results; one in a hundred moves a little from time to time. */
type Row = PersonProfile | FirmProfile | Vacancy;
const lastOrder = new WeakMap<readonly Row[], { epoch: number; rows: Row[] }>();

/** The rows as they are shown for a while. */
function ordered(rows: readonly Row[], epoch: number): Row[] {
  const known = lastOrder.get(rows);
  if (known?.epoch === epoch) return known.rows;
  const keyed = rows.map((row) => ({ row, at: placeOf(idOf(row), epoch) })).sort((a, b) => a.at - b.at);
  const inOrder = keyed.map(({ row }) => row);
  lastOrder.set(rows, { epoch, rows: inOrder });
  return inOrder;
}

const places = new Map<number, number>();

function placeOf(id: number, epoch: number): number {
  const at = places.get(id) ?? chance('place', id);
  places.set(id, at);
  return epoch > 0 && chance('moves', id, epoch) < 0.01 ? at + (chance('where to', id, epoch) - 0.5) * 0.02 : at;
}

function shown(row: Row) {
  if ('role' in row) {
    const { id, role, firm, ageDays } = row;
    return { id, role, age_days: ageDays, ...organisation(firm) };
  }
  if (!('person' in row)) return { id: row.firm.id, ...organisation(row) };
  const { person, firm } = row;
  return {
    id: person.id,
    name: row.shownName,
    job_title: person.title,
    headline: row.headline,
    rank: row.rank,
    team: row.team,
    years_in_role: row.yearsInRole,
    link: `https://www.directory.example/p/${person.id}/`,
    school: row.school,
    certificates: row.certificates,
    earlier: row.earlier,
    ...organisation(firm),
  };
}

const organisation = ({ firm, sector, staff, staffBand, staffGrowth, tools, about }: FirmProfile) => ({
  organisation: firm.name,
  organisation_id: firm.id,
  website: chance('listed site', firm.id) < 0.8 ? `https://www.${firm.domain}` : null,
  sector,
  town: firm.city,
  region: firm.region,
  country: firm.country,
  staff,
  staff_band: staffBand,
  staff_growth: staffGrowth,
  tools,
  about,
});
