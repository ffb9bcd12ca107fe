// Which rank the labelled set of records has on pages: npm run bench -- records LABELS.csv [FOLDER]
// LABELS.csv: page,records (a path in the folder, and how many records the right set has).
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { findRecordSets, readPage } from '@sieve/core';

const [labels = '', folder = '.'] = process.argv.slice(2);
let right = 0;
const lines = readFileSync(labels, 'utf8').trim().split('\n').slice(1);
for (const line of lines) {
  const [page = '', records = ''] = line.split(',');
  const html = readFileSync(join(folder, page), 'utf8');
  const from = performance.now();
  const sets = findRecordSets(readPage(html));
  const ms = performance.now() - from;
  const rank = sets.findIndex((set) => set.records.length === Number(records)) + 1;
  if (rank === 1 || rank === 2) right++;
  const size = `${(html.length / 1024).toFixed(0)} kB`.padStart(8);
  const words = rank === 0 ? '  none' : `rank ${rank}`;
  console.log(`${words}  ${records.padStart(5)} records ${size} ${ms.toFixed(0).padStart(5)} ms  ${page}`);
}
console.log(`${right} of ${lines.length} first or second`);
