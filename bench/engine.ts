// Rows a second and peak memory of each stage, beside `sqlite3 .import` of the same file.
// npm run bench -- engine [ROWS ...]      10000 100000 500000 without arguments
import { execFileSync, spawnSync } from 'node:child_process';
import { linkSync, mkdirSync, mkdtempSync, rmSync, statSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { writeMessyFile } from './messy-file';

// `inspect` looks into the file again, with its people held by then; `held` asks who is, among a million others.
// `whole` is the way from the file to the screened contacts in one process; the others look at parts of it. `intake` has a
// database of its own, the rest goes on with that of `whole`.
const STAGES = ['intake', 'whole', 'tidy', 'match', 'again', 'pages', 'export csv', 'export xlsx', 'inspect', 'held'];
const sizes = process.argv.length > 2 ? process.argv.slice(2).map(Number) : [10_000, 100_000, 500_000];
const script = fileURLToPath(new URL('./stage.js', import.meta.url));
const print = (words: string) => process.stdout.write(`${words}\n`);

print(`${cpus().length} x ${cpus()[0]!.model}, Node ${process.versions.node}`);
for (const rows of sizes) {
  const dir = mkdtempSync(join(tmpdir(), 'sieve-bench-'));
  try {
    const alone = join(dir, 'alone');
    for (const of of [dir, alone]) mkdirSync(join(of, 'uploads'), { recursive: true });
    const file = join(dir, 'uploads', 'list');
    await writeMessyFile(file, rows);
    linkSync(file, join(alone, 'uploads', 'list'));
    print(`\n${rows.toLocaleString('en')} rows x 12 columns, ${(statSync(file).size / 1e6).toFixed(0)} MB`);
    print('stage              seconds    rows/s   peak MB');
    const plain = importTime(file, dir);
    print(
      plain === null ? 'sqlite3 .import    (no sqlite3 on this machine)' : line('sqlite3 .import', plain, rows, 0, ''),
    );
    for (const stage of STAGES) {
      const out = execFileSync(
        process.execPath,
        ['--max-semi-space-size=64', script, stage, String(rows), stage === 'intake' ? alone : dir],
        {
          encoding: 'utf8',
        },
      );
      const { seconds, peakMb, said } = JSON.parse(out) as { seconds: number; peakMb: number; said: string };
      const beside = stage === 'whole' && plain !== null ? `; ${(seconds / plain).toFixed(0)} x sqlite3 .import` : '';
      print(line(stage, seconds, rows, peakMb, said + beside));
    }
  } finally {
    rmSync(dir, { recursive: true, force: true });
  }
}

function line(stage: string, seconds: number, rows: number, peakMb: number, said: string): string {
  const rate = Math.round(rows / seconds).toLocaleString('en');
  return `${stage.padEnd(18)} ${seconds.toFixed(2).padStart(7)} ${rate.padStart(9)} ${peakMb ? peakMb.toFixed(0).padStart(9) : ''.padStart(9)}  ${said}`.trimEnd();
}

function importTime(file: string, dir: string): number | null {
  const from = performance.now();
  const done = spawnSync('sqlite3', [join(dir, 'plain.db'), '-cmd', '.mode csv', `.import ${file} list`]);
  return done.error || done.status !== 0 ? null : (performance.now() - from) / 1000;
}
