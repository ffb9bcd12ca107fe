// npm run sift: installs and builds what is missing, then sifts a file without a screen. docs/sift.md says how.
import { build, install, root, run } from './setup.mjs';

install();
build();
process.exitCode = run('node', [`${root}dist/server/cli/sift.js`, ...process.argv.slice(2)], {
  cwd: process.env.INIT_CWD ?? process.cwd(),
  env: { LOG_LEVEL: 'silent' },
});
