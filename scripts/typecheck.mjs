// Type-checks every package; the web application with Angular's own compiler.
import { fail, run } from './setup.mjs';

const checks = [
  ...['core', 'contract', 'server', 'standins'].map((name) => ['tsc', '-p', `packages/${name}`]),
  ['tsc', '-p', 'tsconfig.tests.json'],
  ['ngc', '-p', 'packages/web/tsconfig.app.json', '--noEmit'],
  ['tsc', '-p', 'packages/web/tsconfig.spec.json', '--noEmit'],
];
for (const args of checks) if (run('npx', args) !== 0) fail(`Type check failed: ${args.join(' ')}`);
