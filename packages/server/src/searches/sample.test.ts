import { fits, NO_LISTS, screenOptions, type Found, type Search } from '@sieve/core';
import { seededRandom } from '@sieve/core/text/random';
import type { Directory } from '../outside/directory/port';
import { drawSample } from './sample';

jest.setTimeout(60_000);

const never = new AbortController().signal;

/** A directory of people whose loose title search also looks at what they did before. */
function directory(size: number): Directory & { asked: () => number } {
  let asked = 0;
  const people = Array.from({ length: size }, (_, i) => ({
    title: i % 4 === 0 ? 'Sales Manager' : 'Quality Manager',
    before: i % 4 === 0 ? 'quality' : '',
    team: ['quality', 'sales', 'production', ''][i % 4]!,
    country: i % 2 ? 'GB' : 'IE',
    level: i % 3 ? 'manager' : 'head',
  }));
  const matching = (search: Search) =>
    people
      .map((person, i) => ({ person, i }))
      .filter(({ person }) =>
        search.conditions.every((given) => {
          const wide: Found = {
            ...person,
            title:
              'terms' in given && given.terms.some(({ exact }) => !exact)
                ? `${person.title} ${person.before}`
                : person.title,
          };
          return fits({ ...search, conditions: [given] }, wide);
        }),
      );
  return {
    asked: () => asked,
    name: 'Plan',
    pageSize: 25,
    pages: { people: 100, companies: 40, postings: 40 },
    count: async (search) => (asked++, matching(search).length),
    find: async () => [],
    named: async () => ({ total: 0, people: [] }),
    facet: async (search, field) => {
      asked++;
      if (field !== 'team' && field !== 'level' && field !== 'country') return null;
      const out = new Map<string, number>();
      for (const { person } of matching(search)) {
        const value = person[field];
        if (value) out.set(value, (out.get(value) ?? 0) + 1);
      }
      return out;
    },
    page: async (search, page) => {
      const rows = matching(search);
      return {
        total: rows.length,
        pages: Math.ceil(rows.length / 25),
        rows: rows.slice((page - 1) * 25, page * 25).map(({ person, i }) => ({
          id: `people-${i}`,
          name: `Maren ${i}`,
          title: person.title,
          company: '',
          place: '',
          link: '',
          found: person,
        })),
      };
    },
  };
}

const loose: Search = {
  about: 'people',
  conditions: [{ field: 'title', not: false, terms: [{ text: 'quality manager', exact: false }] }],
};

test('a sample is drawn over all pages, checked, and says what quotation marks would change', async () => {
  const random = seededRandom(5);
  const plan = directory(800);
  const sample = await drawSample(plan, loose, 20, null, NO_LISTS, random, never);
  expect(sample).toMatchObject({ total: 800, reach: 800, rows: { length: 20 } });
  const misfits = sample.rows.filter(({ fits: fit }) => !fit);
  expect(misfits.length).toBe(20 - sample.fit);
  expect(misfits.every(({ row, why }) => row.title === 'Sales Manager' && why[0]!.startsWith('Title:'))).toBe(true);
  // Wilson 1927: the interval holds the true share, three in four.
  expect(sample.promised.low).toBeLessThanOrEqual(600);
  expect(sample.promised.high).toBeGreaterThanOrEqual(600);
  if (misfits.length > 0) expect(sample.loose[0]).toMatchObject({ text: 'quality manager', quotedCount: 600 });
});

test('every quarter of the result is drawn from alike', async () => {
  const sample = await drawSample(directory(800), loose, 100, null, NO_LISTS, seededRandom(5), never);
  const quarters = [0, 0, 0, 0];
  for (const { row } of sample.rows) quarters[Math.floor(Number(row.id.split('-')[1]) / 200)]!++;
  // 25 are expected of each; four standard deviations to either side.
  expect(quarters.every((n) => n > 9 && n < 41)).toBe(true);
  expect(new Set(sample.rows.map(({ row }) => row.id)).size).toBe(100);
});

test('where the directory shows only a part, every batch of the split is drawn from', async () => {
  const random = seededRandom(5);
  const sample = await drawSample(
    directory(6000),
    { about: 'people', conditions: [] },
    60,
    null,
    NO_LISTS,
    random,
    never,
  );
  expect([sample.total, sample.reach]).toEqual([6000, 6000]);
  const late = sample.rows.filter(({ row }) => Number(row.id.split('-')[1]) > 3000).length;
  expect(late).toBeGreaterThan(15);
  expect(late).toBeLessThan(45);
});

test('a brief is checked, an empty result is said to be empty', async () => {
  const sample = await drawSample(
    directory(40),
    { about: 'people', conditions: [] },
    20,
    screenOptions.parse({ briefTitles: ['Quality Manager'] }),
    NO_LISTS,
    Math.random,
    never,
  );
  expect(sample.rows.every(({ row, fits: fit }) => fit === (row.title === 'Quality Manager'))).toBe(true);
  expect(await drawSample(directory(0), loose, 20, null, NO_LISTS, Math.random, never)).toMatchObject({
    total: 0,
    rows: [],
    promised: { low: 0, likely: 0, high: 0 },
  });
});
