// Builds the web application, the server and the stand-ins into dist/.
import { rmSync } from 'node:fs';
import { bundle } from './bundle.mjs';
import { fail, root, run } from './setup.mjs';

if (run('npx', ['ng', 'build', 'web']) !== 0) fail('The web application could not be built.');
if (run('node', ['scripts/precompress.mjs']) !== 0) fail('The web application could not be compressed.');
for (const name of ['server', 'standins']) rmSync(`${root}dist/${name}`, { recursive: true, force: true });
await bundle('packages/server/src', ['main.ts', 'threads/worker.ts', 'threads/look.ts', 'cli/sift.ts'], 'dist/server');
await bundle('packages/standins/src', ['main.ts', 'start.ts'], 'dist/standins');
