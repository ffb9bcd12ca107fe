// Batches and questions of splits, beside the fewest that could be.
// npm run bench -- split
import { fits, split, type Counting, type Found, type Search } from '@sieve/core';
import { pack } from '../packages/core/src/split/pack';
import { fewestOf } from '../packages/core/src/testing/fewest-batches';
import { seededRandom } from '../packages/core/src/text/random';

const WORLDS = 40;
const print = (words: string) => process.stdout.write(`${words}\n`);
const TEAMS = 'quality production technical operations management engineering sales marketing finance'.split(' ');
const LEVELS = 'owner director head manager lead staff assistant'.split(' ');
const COUNTRIES = ['GB', 'IE', 'US', 'CA', 'AU'];

const directory = (rows: readonly Found[], faceted: boolean): Counting => ({
  count: async (asked) => rows.filter((row) => fits(asked, row)).length,
  facet: async (asked, field) => {
    if (!faceted) return null;
    const counts = new Map<string, number>();
    for (const row of rows.filter((one) => fits(asked, one)))
      if (row[field]) counts.set(String(row[field]), (counts.get(String(row[field])) ?? 0) + 1);
    return counts;
  },
});

/** Values as uneven as they are in life: the first ones are the most. */
const uneven = (random: () => number, list: readonly string[]) => list[Math.floor(random() ** 1.8 * list.length)]!;

function people(n: number, random: () => number): Found[] {
  return Array.from({ length: n }, () => ({
    team: random() < 0.08 ? '' : uneven(random, TEAMS),
    level: random() < 0.06 ? '' : uneven(random, LEVELS),
    country: uneven(random, COUNTRIES),
    years: random() < 0.05 ? null : Math.floor(random() ** 2 * 25),
  }));
}
function companies(n: number, random: () => number): Found[] {
  const normal = () => random() + random() + random() - 1.45;
  return Array.from({ length: n }, () => ({
    growth: random() < 0.08 ? null : Math.round(normal() * 40),
    teamgrowth: random() < 0.08 ? null : Math.round(normal() * 40),
    employees: Math.max(1, Math.round(Math.exp(0.5 + random() * 5))),
    sector: uneven(random, TEAMS),
    country: uneven(random, COUNTRIES),
  }));
}

print(`${WORLDS} random worlds each; n / cap is the fewest batches that any split can have`);
print('search             rows    cap   fewest   batches   questions   out of reach');
const CASES: [string, Search['about'], number, number, boolean][] = [
  ['people, counted', 'people', 6214, 2500, true],
  ['people, counted', 'people', 20_000, 2500, true],
  ['people, counted', 'people', 60_000, 2500, true],
  ['people, uncounted', 'people', 6214, 2500, false],
  ['companies', 'companies', 3000, 1000, true],
  ['companies', 'companies', 6000, 1000, true],
  ['companies', 'companies', 20_000, 1000, false],
];
for (const [name, about, n, cap, faceted] of CASES) {
  const sum = { fewest: 0, batches: 0, questions: 0, out: 0 };
  for (let seed = 1; seed <= WORLDS; seed++) {
    const random = seededRandom(seed);
    const rows = about === 'people' ? people(n, random) : companies(n, random);
    const found = await split({ about, conditions: [] }, cap, directory(rows, faceted));
    sum.fewest += found.fewest;
    sum.batches += found.batches.length;
    sum.questions += found.questions;
    sum.out += found.outOfReach;
  }
  const mean = (total: number) => (total / WORLDS).toFixed(1);
  print(
    `${name.padEnd(17)} ${n.toLocaleString('en').padStart(6)} ${String(cap).padStart(6)} ${mean(sum.fewest).padStart(8)} ${mean(sum.batches).padStart(9)} ${mean(sum.questions).padStart(11)} ${mean(sum.out).padStart(14)}`,
  );
}

const SMALL = 300;
const more: number[] = [];
let tooMany = 0;
for (let seed = 1; seed <= SMALL; seed++) {
  const random = seededRandom(seed);
  const [teams, levels] = [
    [...TEAMS.slice(0, 3), ''],
    [...LEVELS.slice(0, 3), ''],
  ];
  const rows = Array.from({ length: 40 }, (): Found => ({
    team: uneven(random, teams),
    level: uneven(random, levels),
  }));
  const sizeOf = (team: string) =>
    levels.map((level) => rows.filter((row) => row['team'] === team && row['level'] === level).length);
  const cap = Math.max(...teams.flatMap(sizeOf), 8 + Math.floor(random() * 16));
  const found = await split({ about: 'people', conditions: [] }, cap, directory(rows, true));
  const over = found.batches.length - fewestOf(rows, teams, levels, cap);
  more[over] = (more[over] ?? 0) + 1;
  if (found.questions > 2 * found.batches.length) tooMany++;
}
print(
  `${SMALL} small worlds of two categories beside the optimum found by trying all partitions: ${Array.from(more, (n, over) => `${n ?? 0} are ${over} batches over`).join(', ')}; more than two questions for a batch in ${tooMany}`,
);

let over = 0;
const CHECKED = 2000;
for (let seed = 1; seed <= CHECKED; seed++) {
  const random = seededRandom(seed);
  const sizes = Array.from({ length: 2 + Math.floor(random() * 8) }, () => 1 + Math.floor(random() * 2500));
  over += pack(sizes, 2500).length - optimum(sizes, 2500);
}
print(
  `packing ${CHECKED.toLocaleString('en')} sets of up to 9 values: ${over} batches over the optimum found by trying all`,
);

function optimum(sizes: readonly number[], capacity: number): number {
  let best = sizes.length;
  const place = (k: number, bins: readonly number[]): void => {
    if (bins.length >= best) return;
    if (k === sizes.length) return void (best = bins.length);
    const size = sizes[k]!;
    bins.forEach((used, i) => {
      if (used + size <= capacity)
        place(
          k + 1,
          bins.map((b, j) => (i === j ? b + size : b)),
        );
    });
    place(k + 1, [...bins, size]);
  };
  place(0, []);
  return best;
}
