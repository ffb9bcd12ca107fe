import { search as searchSchema, type Found, type Search } from '../model/search';
import { fits } from '../search/evaluate';
import { seededRandom } from '../text/random';
import { apart, checkBatches } from './check-batches';
import { fewestOf } from '../testing/fewest-batches';
import { pack } from './pack';
import { split, type Counting } from './split';

const people: Search = { about: 'people', conditions: [] };
const companies: Search = { about: 'companies', conditions: [] };

/** A directory of rows; `faceted` names the fields whose values it counts. */
const directory = (rows: readonly Found[], faceted: readonly string[]): Counting => ({
  count: async (asked) => rows.filter((row) => fits(asked, row)).length,
  facet: async (asked, field) => {
    if (!faceted.includes(field)) return null;
    const counts = new Map<string, number>();
    for (const row of rows.filter((one) => fits(asked, one)))
      if (row[field]) counts.set(String(row[field]), (counts.get(String(row[field])) ?? 0) + 1);
    return counts;
  },
});

/** Every row of the search is in exactly one batch, and each count is true. */
function expectWhole(rows: readonly Found[], whole: Search, batches: readonly { search: Search; count: number }[]) {
  for (const { search, count } of batches) {
    searchSchema.parse(search);
    expect(rows.filter((row) => fits(search, row)).length).toBe(count);
  }
  const wrong = rows.filter(
    (row) => batches.filter(({ search }) => fits(search, row)).length !== (fits(whole, row) ? 1 : 0),
  );
  expect(wrong).toEqual([]);
}

const TEAMS = ['quality', 'production', 'technical', 'operations', 'sales', 'finance'];
const LEVELS = ['owner', 'director', 'head', 'manager', 'staff'];
const COUNTRIES = ['GB', 'IE', 'US', 'AU'];

test('cover and no overlap, over 1,500 random worlds of people and companies', async () => {
  let batches = 0;
  let fewest = 0;
  for (let seed = 1; seed <= 1500; seed++) {
    const random = seededRandom(seed);
    const pick = (list: readonly string[]) => list[Math.floor(random() ** (1 + (seed % 3)) * list.length)]!;
    const blank = random() * 0.4;
    const about = seed % 2 ? ('people' as const) : ('companies' as const);
    const spread = 1 + Math.floor(random() * 120);
    const rows = Array.from({ length: Math.floor(random() * 300) }, (): Found => {
      const number = () => (random() < blank ? null : Math.floor((random() - 0.4) * spread));
      return about === 'people'
        ? {
            team: random() < blank ? '' : pick(TEAMS),
            level: random() < blank ? '' : pick(LEVELS),
            country: random() < blank ? '' : pick(COUNTRIES),
            years: random() < blank ? null : Math.floor(random() * 30),
          }
        : { growth: number(), teamgrowth: number(), sector: random() < blank ? '' : pick(TEAMS), employees: null };
    });
    const cap = 5 + Math.floor(random() * 80);
    const whole: Search =
      seed % 5
        ? { about, conditions: [] }
        : { about, conditions: [{ field: 'company', not: true, terms: [{ text: 'x', exact: true }] }] };
    const found = await split(whole, cap, directory(rows, seed % 7 ? ['team', 'level', 'country', 'sector'] : []));
    expectWhole(rows, whole, found.batches);
    expect(found.outOfReach).toBe(found.batches.reduce((sum, { count }) => sum + Math.max(0, count - cap), 0));
    batches += found.batches.length;
    fewest += found.fewest;
  }
  expect(batches).toBeLessThan(fewest * 1.6);
});

test('as few batches as can be on nearly all of 150 small worlds of two categories, tried out in full; one more on others, and no more than two questions a batch', async () => {
  const teams = [...TEAMS.slice(0, 3), ''];
  const levels = [...LEVELS.slice(0, 3), ''];
  const over = [0, 0, 0];
  for (let seed = 1; seed <= 150; seed++) {
    const random = seededRandom(seed);
    const pick = (list: readonly string[]) => list[Math.floor(random() ** (1 + (seed % 3) / 2) * list.length)]!;
    const rows = Array.from({ length: 40 }, (): Found => ({ team: pick(teams), level: pick(levels) }));
    const largest = Math.max(
      ...teams.flatMap((team) =>
        levels.map((level) => rows.filter((row) => row['team'] === team && row['level'] === level).length),
      ),
    );
    const cap = Math.max(largest, 8 + Math.floor(random() * 16));
    const found = await split(people, cap, directory(rows, ['team', 'level']));
    const more = found.batches.length - fewestOf(rows, teams, levels, cap);
    over[more]!++;
    expect(found.questions).toBeLessThanOrEqual(2 * found.batches.length);
  }
  expect(over[0]).toBeGreaterThanOrEqual(143);
  expect(over[0]! + over[1]!).toBe(150);
});

// Common practice, no source: a search of over 6,000 fits into 4 batches of under 2,500 by team and level.
test('over 6,000 people in at most 4 batches', async () => {
  const random = seededRandom(4);
  const rows = Array.from({ length: 6214 }, (): Found => ({
    team: ['quality', 'quality', 'quality', 'production', 'technical', ''][Math.floor(random() * 6)]!,
    level: ['manager', 'manager', 'head', 'director', 'staff', ''][Math.floor(random() * 6)]!,
  }));
  const found = await split(people, 2500, directory(rows, ['team', 'level']));
  expect(found.batches.length).toBeLessThanOrEqual(4);
  expect(found.fewest).toBe(3);
  expect(Math.max(...found.batches.map(({ count }) => count))).toBeLessThanOrEqual(2500);
  expect(found.questions).toBeLessThan(12);
  expectWhole(rows, people, found.batches);
});

// Common practice, no source: growth ranges that split companies: -100 to -20, -19 to -10, -9 to -3, -2 to 0, 1 to 7, 8 and up.
test('companies under a cap of 1,000 by whole growth ranges that never share an end', async () => {
  const sizes = [
    [-100, -20, 640],
    [-19, -10, 930],
    [-9, -3, 980],
    [-2, 0, 990],
    [1, 7, 985],
    [8, 300, 960],
  ] as const;
  const random = seededRandom(6);
  const rows = sizes.flatMap(([from, to, n]) =>
    Array.from({ length: n }, (): Found => ({
      growth: from + Math.floor(random() * (to - from + 1)),
      employees: null,
      teamgrowth: null,
    })),
  );
  const found = await split(companies, 1000, directory(rows, []));
  expectWhole(rows, companies, found.batches);
  expect(found.outOfReach).toBe(0);
  expect(found.batches.length).toBeLessThanOrEqual(sizes.length);
  const first = found.batches[0]!.by!;
  expect('ranges' in first && first.ranges[0]!.from).toBe(null);
});

test('what nothing separates is said to be out of reach, and is still asked as one batch', async () => {
  const rows = Array.from({ length: 90 }, (): Found => ({
    team: 'quality',
    level: 'manager',
    country: 'GB',
    years: 3,
  }));
  const found = await split(people, 40, directory(rows, ['team', 'level', 'country']));
  expect([found.batches.length, found.outOfReach, found.fewest]).toEqual([1, 50, 3]);
});

test('as few bins as an exhaustive search finds', () => {
  const exhaustive = (sizes: number[], capacity: number): number => {
    let best = sizes.length;
    const go = (k: number, bins: number[]) => {
      if (bins.length >= best) return;
      if (k === sizes.length) return void (best = bins.length);
      bins.forEach((used, i) => {
        if (used + sizes[k]! <= capacity)
          go(
            k + 1,
            bins.map((b, j) => (i === j ? b + sizes[k]! : b)),
          );
      });
      go(k + 1, [...bins, sizes[k]!]);
    };
    go(0, []);
    return best;
  };
  for (let seed = 1; seed <= 150; seed++) {
    const random = seededRandom(seed);
    const sizes = Array.from({ length: 1 + Math.floor(random() * 8) }, () => 1 + Math.floor(random() * 50));
    const bins = pack(sizes, 50);
    expect(bins.length).toBe(exhaustive(sizes, 50));
    expect(bins.flat().sort((a, b) => a - b)).toEqual(sizes.map((_, i) => i));
    expect(bins.every((bin) => bin.reduce((sum, i) => sum + sizes[i]!, 0) <= 50)).toBe(true);
  }
});

test('batches made by hand: what is missing, and what is counted twice', async () => {
  const rows: Found[] = [{ team: 'quality' }, { team: 'quality' }, { team: 'sales' }, { team: '' }];
  const by = (not: boolean, ...teams: string[]): Search => ({
    ...people,
    conditions: [{ field: 'team', not, terms: teams.map((text) => ({ text, exact: true })) }],
  });
  const asked = directory(rows, []);
  expect(await checkBatches(people, [by(false, 'quality'), by(false, 'sales')], asked)).toMatchObject({
    total: 4,
    counts: [2, 1],
    missing: 1,
    twice: 0,
  });
  expect(await checkBatches(people, [by(true, 'sales'), by(false, 'sales', 'quality')], asked)).toMatchObject({
    missing: 0,
    twice: 2,
    shared: [{ a: 0, b: 1, count: 2 }],
  });
  expect(apart(by(true, 'sales', 'quality'), by(false, 'sales'))).toBe(true);
  const years = (from: number | null, to: number | null): Search => ({
    ...people,
    conditions: [{ field: 'years', not: false, ranges: [{ from, to }] }],
  });
  expect([apart(years(null, 3), years(4, null)), apart(years(null, 4), years(4, 9))]).toEqual([true, false]);
});
