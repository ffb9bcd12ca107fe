import type { AnswerOf, Condition, ProfilesQuestion, Search, Subject } from '@sieve/core';
import type { DirectoryRow, DirectorySetting } from '@sieve/contract';
import * as z from 'zod';
import { MOST_HELD_MS, paced, sleep } from '../wrap/pace';
import { retryAfterMs } from '../wrap/retry-after';
import { ServiceDown } from '../wrap/service-down';
import type { Directory } from './port';

/** The wire format of the simulated directory: its own names for subjects and fields. */
const KIND: Record<Subject, string> = { people: 'people', companies: 'organisations', postings: 'vacancies' };
const ATTRIBUTE: Record<string, string> = {
  title: 'job_title',
  role: 'role',
  age: 'age_days',
  level: 'rank',
  team: 'team',
  years: 'years_in_role',
  company: 'organisation',
  sector: 'sector',
  country: 'country',
  region: 'region',
  city: 'town',
  headcount: 'staff_band',
  employees: 'staff',
  growth: 'staff_growth',
  teamgrowth: 'team_growth',
  technology: 'tools',
  hiring: 'vacancies',
  past: 'earlier',
  school: 'school',
  certificate: 'certificates',
  follows: 'reads',
  keyword: 'about',
};

const text = z.string().max(500).nullish();
const result = z.object({
  id: z.union([z.int(), z.string().max(60)]),
  name: text,
  job_title: text,
  role: text,
  headline: z.string().max(2000).nullish(),
  rank: text,
  team: text,
  years_in_role: z.number().nullish(),
  age_days: z.number().nullish(),
  link: text,
  school: text,
  certificates: z.array(z.string()).nullish(),
  organisation: text,
  website: text,
  sector: text,
  town: text,
  region: text,
  country: text,
  staff: z.number().nullish(),
  staff_band: text,
  staff_growth: z.number().nullish(),
  tools: z.array(z.string()).nullish(),
  about: z.array(z.string()).nullish(),
  earlier: z.array(z.string()).nullish(),
});
const answers = {
  session: z.object({ token: z.string(), expires_in: z.number() }),
  total: z.object({ total: z.int().min(0) }),
  values: z.object({ values: z.array(z.object({ value: z.string(), total: z.int().min(0) })) }),
  page: z.object({ total: z.int().min(0), pages: z.int().min(0), results: z.array(result) }),
  found: z.object({ organisations: z.array(result), people: z.array(result) }),
};

const TRIES = 5;

/** A client of the directory in the settings: signs in, keeps the pace, asks again what failed. */
export function directoryClient(setting: DirectorySetting): Directory {
  const { turn, hold } = paced();
  let session: Promise<string> | null = null;

  async function send(path: string, body: object, token: string, signal: AbortSignal): Promise<Response> {
    await turn('directory', setting.perSecond, signal);
    return fetch(setting.url.replace(/\/$/, '') + path, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'x-session': token },
      body: JSON.stringify(body),
      // Where it leads to is not where the settings sent it.
      redirect: 'manual',
      signal: AbortSignal.any([signal, AbortSignal.timeout(15_000)]),
    });
  }

  async function signIn(signal: AbortSignal): Promise<string> {
    const response = await send('/v1/session', { key: setting.key }, '', signal);
    if (response.status === 403) throw new ServiceDown(setting.name, 'it does not accept the key');
    if (!response.ok) throw new Error(String(response.status));
    return answers.session.parse(await response.json()).token;
  }

  async function call<T>(path: string, body: object, schema: z.ZodType<T>, signal: AbortSignal): Promise<T | null> {
    let reason = 'it did not answer';
    let heldMs = 0;
    for (let attempt = 1; attempt <= TRIES; attempt++) {
      let waitMs = 200 * 2 ** attempt;
      try {
        session ??= signIn(signal).catch((error: Error) => {
          session = null;
          throw error;
        });
        const response = await send(path, body, await session, signal);
        if (response.ok) {
          const read = schema.safeParse(await response.json());
          if (read.success) return read.data;
          throw new ServiceDown(setting.name, 'its answer could not be read');
        }
        if (response.status === 404) return null;
        reason = `it answered ${response.status}`;
        if (response.status === 401) {
          session = null;
          continue;
        }
        if (response.status < 500 && response.status !== 429) throw new ServiceDown(setting.name, reason);
        waitMs = retryAfterMs(response.headers, waitMs, Date.now());
        // It was asked too fast, which is no failure.
        if (response.status === 429 && heldMs < MOST_HELD_MS) {
          heldMs += hold('directory', waitMs);
          attempt--;
          continue;
        }
      } catch (error) {
        if (error instanceof ServiceDown) throw error;
        signal.throwIfAborted();
        session = null;
      }
      if (attempt < TRIES) await sleep(waitMs, signal);
    }
    throw new ServiceDown(setting.name, reason);
  }

  return {
    name: setting.name,
    pageSize: 25,
    pages: { people: 100, companies: 40, postings: 40 },
    async count(search, signal) {
      const found = await call(`/v1/tally/${KIND[search.about]}`, { where: whereOf(search) }, answers.total, signal);
      return found?.total ?? 0;
    },
    async facet(search, field, signal) {
      if (!Object.hasOwn(ATTRIBUTE, field)) return null;
      const path = `/v1/tally/${KIND[search.about]}/by/${ATTRIBUTE[field]}`;
      const found = await call(path, { where: whereOf(search) }, answers.values, signal);
      return found && new Map(found.values.map(({ value, total }) => [value, total]));
    },
    async page(search, page, signal) {
      const body = { where: whereOf(search), page };
      const found = await call(`/v1/search/${KIND[search.about]}`, body, answers.page, signal);
      if (!found) throw new ServiceDown(setting.name, 'it does not know this kind of search');
      return { total: found.total, pages: found.pages, rows: found.results.map((row) => toRow(search.about, row)) };
    },
    async find(link, signal) {
      const found = await call('/v1/find', { link }, answers.found, signal);
      if (!found) return [];
      return [
        ...found.organisations.map((row) => toRow('companies', row)),
        ...found.people.map((row) => toRow('people', row)),
      ];
    },
    async named(question, signal) {
      const found = await call('/v1/search/people', { where: whereNamed(question), page: 1 }, answers.page, signal);
      if (!found) throw new ServiceDown(setting.name, 'it does not know this kind of search');
      return { total: found.total, people: found.results.map(toListed) };
    },
  };
}

const whereOf = ({ conditions }: Search) => conditions.map(filterOf);

const filterOf = (given: Condition) => ({
  attribute: ATTRIBUTE[given.field],
  op: given.not ? 'none_of' : 'any_of',
  ...('terms' in given
    ? { phrases: given.terms.map(({ text: words, exact }) => ({ words, in_order: exact })) }
    : { between: given.ranges.map(({ from, to }) => ({ min: from, max: to })) }),
});

function whereNamed({ names, company, city, country, language }: ProfilesQuestion) {
  const phrase = (words: string) => ({ words, in_order: false });
  const narrow = { organisation: company, town: city, country, language };
  return [
    { attribute: 'name', op: 'any_of', phrases: names.map(phrase) },
    ...Object.entries(narrow)
      .filter(([, words]) => words !== '')
      .map(([attribute, words]) => ({ attribute, op: 'any_of', phrases: [phrase(words)] })),
  ];
}

const toListed = (row: z.infer<typeof result>): AnswerOf<'profiles'>['people'][number] => ({
  name: row.name ?? '',
  title: row.job_title ?? '',
  company: row.organisation ?? '',
  past: row.earlier ?? [],
  city: row.town ?? '',
  region: row.region ?? '',
  country: row.country ?? '',
  website: row.website ?? '',
  link: row.link ?? '',
});

function toRow(about: Subject, row: z.infer<typeof result>): DirectoryRow {
  const company = row.organisation ?? '';
  return {
    id: `${about}-${row.id}`,
    name: about === 'people' ? (row.name ?? '') : company,
    title: row.job_title ?? row.role ?? '',
    company,
    place: [row.town, row.region, row.country].filter(Boolean).join(', '),
    link: row.link ?? row.website ?? '',
    found: {
      title: row.job_title,
      role: row.role,
      age: row.age_days,
      level: row.rank,
      team: row.team,
      years: row.years_in_role,
      company,
      website: row.website,
      sector: row.sector,
      country: row.country,
      region: row.region,
      city: row.town,
      headcount: row.staff_band,
      employees: row.staff,
      growth: row.staff_growth,
      technology: row.tools ?? undefined,
      school: row.school,
      certificate: row.certificates ?? undefined,
      ...(about === 'companies' && { keyword: row.about ?? undefined }),
    },
  };
}
