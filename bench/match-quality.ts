// Precision, recall and F1 of matching on a labelled file.
// npm run bench -- match FILE [--truth COLUMN] [--merge 0.9] [--judge 100]
// COLUMN: equal values are one person; ent_id without it. --judge: the so many least certain pairs are judged by the truth, and what that teaches
// is measured on all other pairs
import { readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import {
  delimitedReader,
  findDelimiter,
  matchOptions,
  matchPeople,
  NO_LISTS,
  recogniseColumns,
  tidier,
} from '@sieve/core';

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    truth: { type: 'string', default: 'ent_id' },
    merge: { type: 'string' },
    judge: { type: 'string', default: '0' },
  },
});
const text = readFileSync(positionals[0] ?? '', 'utf8');
const reader = delimitedReader(findDelimiter(text.slice(0, 20_000)));
const [header, ...rows] = [...reader.push(text), ...reader.end()].map(({ cells }) => cells);
const truthAt = header!.indexOf(values.truth);
if (truthAt < 0) throw new Error(`no column ${values.truth} in ${header!.join(', ')}`);

const known = recogniseColumns(header!, rows);
const columns = known.map((column, i) => ({ ...column, target: i === truthAt ? ('skip' as const) : column.target }));
const tidy = tidier({ phoneCountry: 'US', lists: NO_LISTS });
const people = rows.map((cells) => tidy(cells, columns).person);
const from = performance.now();
const lines = matchOptions.parse({});
const mergeFrom = Number(values.merge ?? lines.mergeFrom);
const { roots, doubtful, compared, expectedError } = matchPeople(people, { mergeFrom, judgeFrom: lines.judgeFrom });
const seconds = (performance.now() - from) / 1000;

const truth = rows.map((cells) => cells[truthAt]!);
const pairsOf = (keys: readonly (string | number)[]) => {
  const sizes = new Map<string | number, number>();
  for (const key of keys) sizes.set(key, (sizes.get(key) ?? 0) + 1);
  return [...sizes.values()].reduce((sum, n) => sum + (n * (n - 1)) / 2, 0);
};
const judged = doubtful.slice(0, Number(values.judge));
const real = pairsOf(truth);
const found = pairsOf([...roots]);
const right = pairsOf(truth.map((key, i) => `${key} ${roots[i]}`));
const precision = right / found;
const recall = right / real;
const judgedRight = doubtful.filter(({ a, b }) => truth[a] === truth[b]).length;
process.stdout.write(
  [
    `columns    ${columns.map(({ name, target }) => `${name}=${target}`).join(' ')}`,
    `records    ${rows.length}, ${new Set(truth).size} people, ${real} true pairs, ${compared} pairs compared in ${seconds.toFixed(2)} s`,
    `merged     precision ${precision.toFixed(4)}  recall ${recall.toFixed(4)}  F1 ${((2 * precision * recall) / (precision + recall)).toFixed(4)}  at a line of ${mergeFrom}`,
    `expected   ${(expectedError * 1000).toFixed(1)} wrong in 1,000 merges; really ${((1 - precision) * 1000).toFixed(1)}`,
    `to judge   ${doubtful.length} pairs, ${judgedRight} of them one person`,
  ].join('\n') + '\n',
);

if (judged.length > 0) {
  const isSame = ({ a, b }: (typeof judged)[number]) => truth[a] === truth[b];
  const pairs = (same: boolean) =>
    judged.filter((pair) => isSame(pair) === same).map(({ a, b }): [number, number] => [a, b]);
  const after = matchPeople(people, { mergeFrom, judgeFrom: lines.judgeFrom }, pairs(true), pairs(false));
  const skip = new Set(judged.flatMap(({ a, b }) => [truth[a], truth[b]]));
  const others = truth.flatMap((key, i) => (skip.has(key) ? [] : [i]));
  const say = (roots: Int32Array) => {
    const found = pairsOf(others.map((i) => roots[i]!));
    const right = pairsOf(others.map((i) => `${truth[i]} ${roots[i]}`));
    return `precision ${(right / found).toFixed(4)}  recall ${(right / pairsOf(others.map((i) => truth[i]!))).toFixed(4)}`;
  };
  process.stdout.write(
    `judged     ${judged.length} pairs; ${after.taught?.moved ?? 0} others crossed a line; of the people who were not judged ${say(roots)} before, ${say(after.roots)} after; ${after.doubtfulCount} left to judge\n`,
  );
}
