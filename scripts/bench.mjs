// npm run bench: prints figures and asserts nothing. docs/benchmarks.md says what they mean.
import { build, fail, install, root, run } from './setup.mjs';

const BENCHES = {
  engine: 'engine.js',
  match: 'match-quality.js',
  split: 'split.js',
  records: 'records.js',
  columns: 'columns.js',
  formats: 'formats.js',
  encodings: 'encodings.js',
  profiles: 'profiles.js',
  'match-sets': 'match-sets.js',
  titles: 'titles.js',
  websites: 'websites.js',
  companies: 'companies.js',
  patterns: 'patterns.js',
  verify: 'verify.js',
  kill: 'kill.js',
  grid: '../../bench/grid.mjs',
  web: '../../bench/web.mjs',
  stalls: '../../bench/stalls.mjs',
};
const [name, ...args] = process.argv.slice(2);
if (!(name in BENCHES)) fail(`npm run bench -- ${Object.keys(BENCHES).join(' | ')} [arguments]`);

install();
build();
const { bundle } = await import('./bundle.mjs');
await bundle(
  'bench',
  [
    'engine.ts',
    'stage.ts',
    'messy-file.ts',
    'match-quality.ts',
    'match-sets.ts',
    'split.ts',
    'records.ts',
    'columns.ts',
    'formats.ts',
    'encodings.ts',
    'profiles.ts',
    'titles.ts',
    'websites.ts',
    'companies.ts',
    'patterns.ts',
    'verify.ts',
    'kill.ts',
  ],
  'dist/bench',
);
process.exitCode = run('node', [`${root}dist/bench/${BENCHES[name]}`, ...args], {
  cwd: process.env.INIT_CWD ?? process.cwd(),
});
