// How well companies are told by their names: pairs that a column says are one against those that matching puts together.
// npm run bench -- companies FILE [--truth COLUMN]      CSV with the column name, and domain, city, country where there are
import { readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { companyPairs, delimitedReader, groupCompanies, JUDGE_FROM } from '@sieve/core';

const { values, positionals } = parseArgs({
  options: { truth: { type: 'string', default: 'truth' } },
  allowPositionals: true,
});
const [file] = positionals;
if (!file) throw new Error('npm run bench -- companies FILE [--truth COLUMN]');
const reader = delimitedReader(',');
const [header, ...rows] = [...reader.push(readFileSync(file, 'utf8')), ...reader.end()].map(({ cells }) => cells);
const at = (name: string) => header!.indexOf(name);
if (at('name') < 0 || at(values.truth) < 0) throw new Error(`wants the columns name and ${values.truth} in ${file}`);
const cell = (cells: readonly string[], name: string) => (at(name) < 0 ? '' : (cells[at(name)] ?? ''));
const companies = rows.map((cells) => ({
  name: cell(cells, 'name'),
  domain: cell(cells, 'domain'),
  city: cell(cells, 'city'),
  country: cell(cells, 'country'),
  link: '',
}));
const truth = rows.map((cells) => cell(cells, values.truth));

const started = performance.now();
const first = groupCompanies(companies);
const ms = performance.now() - started;
const doubtful = companyPairs(companies).filter(({ a, b, chance }) => chance >= JUDGE_FROM && first[a] !== first[b]);

/** Pairs within groups of the same key, and the keys of both that agree. */
const pairsOf = (key: (i: number) => string | number) => {
  const groups = new Map<string | number, number[]>();
  for (const i of rows.keys()) groups.set(key(i), [...(groups.get(key(i)) ?? []), i]);
  return [...groups.values()].flatMap((group) =>
    group.flatMap((a, n) => group.slice(n + 1).map((b): [number, number] => [a, b])),
  );
};
const found = pairsOf((i) => first[i]!);
const right = found.filter(([a, b]) => truth[a] === truth[b]);
const wanted = pairsOf((i) => truth[i]!);
const [precision, recall] = [right.length / found.length, right.length / wanted.length];
const judged = new Set(doubtful.map(({ a, b }) => `${Math.min(a, b)} ${Math.max(a, b)}`));
const missed = wanted.filter(([a, b]) => first[a] !== first[b]);
const toJudge = missed.filter(([a, b]) => judged.has(`${a} ${b}`)).length;
process.stdout.write(
  `${rows.length} names, ${wanted.length} pairs: precision ${precision.toFixed(4)}, recall ${recall.toFixed(4)}, ` +
    `F1 ${((2 * precision * recall) / (precision + recall)).toFixed(4)}; ${doubtful.length} to judge hold ${toJudge} of ${missed.length} missed; ${Math.round(ms)} ms\n`,
);
if (process.env['MISSES']) {
  const show = ([a, b]: [number, number]) => `  ${companies[a]!.name}  |  ${companies[b]!.name}`;
  const wrong = found.filter(([a, b]) => truth[a] !== truth[b]);
  process.stdout.write(
    `missed\n${missed.slice(0, 60).map(show).join('\n')}\nwrong\n${wrong.slice(0, 60).map(show).join('\n')}\n`,
  );
}
