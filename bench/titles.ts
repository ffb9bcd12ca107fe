// How often level and team are read right out of titles, and where they are not.
// npm run bench -- titles FILE      CSV with the columns title, level, team; without FILE the unseen ones of fixtures
import { readFileSync } from 'node:fs';
import { delimitedReader, parseTitle } from '@sieve/core';

const [file = 'packages/core/src/fixtures/titles-unseen.csv'] = process.argv.slice(2);
const reader = delimitedReader(',');
const [header, ...rows] = [...reader.push(readFileSync(file, 'utf8')), ...reader.end()].map(({ cells }) => cells);
const [titleAt, levelAt, teamAt] = ['title', 'level', 'team'].map((name) => header!.indexOf(name));
if ([titleAt, levelAt, teamAt].includes(-1)) throw new Error(`wants the columns title, level and team in ${file}`);

const misses: string[] = [];
const right = { level: 0, team: 0 };
for (const cells of rows) {
  const said = parseTitle(cells[titleAt!]!);
  const truth = { level: cells[levelAt!]!, team: cells[teamAt!]! };
  for (const key of ['level', 'team'] as const)
    if (said[key] === truth[key]) right[key]++;
    else misses.push(`${key.padEnd(6)} ${cells[titleAt!]}: ${said[key] || 'none'}, is ${truth[key] || 'none'}`);
}
const share = (n: number) => `${((100 * n) / rows.length).toFixed(1)} %`;
process.stdout.write(
  [`${rows.length} titles: level right on ${share(right.level)}, team on ${share(right.team)}`, ...misses].join('\n') +
    '\n',
);
