// Recognition of columns on labelled layouts: npm run bench -- columns FILE [FILE ...]
// FILE: layouts with a blank line between; the first line says what each column is, the second its headings ('?' for a list without),
// the rest are rows; cells with ' | ' between. Lines with # in front are remarks. A second column of a kind is written with a figure.
import { readFileSync } from 'node:fs';
import { findHeader, recogniseColumns, uniqueNames } from '@sieve/core';

const cellsOf = (line: string) => line.split('|').map((cell) => cell.trim());

interface Tally {
  right: number;
  wanted: number;
  said: number;
}
const tallies = new Map<string, Tally>();
const tally = (target: string) => {
  const known = tallies.get(target) ?? { right: 0, wanted: 0, said: 0 };
  tallies.set(target, known);
  return known;
};
let layouts = 0;
let whole = 0;
for (const file of process.argv.slice(2)) {
  const text = readFileSync(file, 'utf8').replaceAll(/^#.*\n/gm, '');
  for (const block of text.trim().split(/\n\s*\n/)) {
    const [first = '', headings = '', ...lines] = block.split('\n');
    // A second column of one kind is the person's own; what is not said to be skipped may be skipped or own.
    const wanted = cellsOf(first).map((target) => (/\d$/.test(target) ? 'own' : target));
    const rows = lines.map(cellsOf);
    const isBare = headings.includes('?');
    const sample = isBare ? rows : [cellsOf(headings), ...rows];
    const { row, names } = findHeader(sample);
    const found = recogniseColumns(row < 0 ? uniqueNames(wanted.map(() => '')) : names, sample.slice(row + 1), [
      'dairy',
      'cheese',
    ]);
    const plain = (target: string | undefined) => (target === 'skip' ? 'own' : (target ?? 'own'));
    layouts++;
    const misses = wanted.flatMap((target, i) => {
      const [is, should] = [plain(found[i]?.target), plain(target)];
      tally(should).wanted++;
      tally(is).said++;
      if (is === should) tally(should).right++;
      return is === should ? [] : [`${names[i] ?? '?'}: ${is}, not ${should}`];
    });
    if (misses.length === 0) whole++;
    else console.log(`${cellsOf(headings).slice(0, 4).join(', ')} ...  ${misses.join('; ')}`);
  }
}
console.log('\nfield        precision  recall   of');
for (const [target, { right, wanted, said }] of [...tallies].sort(([a], [b]) => (a < b ? -1 : 1)))
  console.log(
    `${target.padEnd(12)} ${(said === 0 ? 1 : right / said).toFixed(3).padStart(8)} ${(wanted === 0 ? 1 : right / wanted).toFixed(3).padStart(8)} ${String(wanted).padStart(5)}`,
  );
console.log(`${whole} of ${layouts} layouts whole`);
