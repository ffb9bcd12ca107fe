// npm run demo, npm start: installs and builds what is missing, starts the stand-ins and the server.
import { existsSync, rmSync } from 'node:fs';
import { resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { build, fail, install, root, say, startAll } from './setup.mjs';

const { values } = parseArgs({
  options: {
    demo: { type: 'boolean', default: false },
    reset: { type: 'boolean', default: false },
    port: { type: 'string', default: '4270' },
    data: { type: 'string' },
  },
});
const port = Number(values.port);
if (!Number.isInteger(port) || port < 1 || port > 65530)
  fail(`--port takes a number from 1 to 65530, not ${values.port}.`);
const dataDir = resolve(values.data ?? `${root}data/${values.demo ? 'demo' : 'own'}`);

install();
build();
if (values.demo && values.reset) rmSync(dataDir, { recursive: true, force: true });
const fresh = !existsSync(`${dataDir}/sieve.db`);
const { url, stop, server } = await startAll({ port, dataDir });
server.once('exit', () => {
  stop();
  process.exit(1);
});
for (const signal of ['SIGINT', 'SIGTERM']) process.once(signal, () => (stop(), process.exit(0)));
if (values.demo && fresh) {
  say(
    'Laying the demo data: three files are brought in, matched, screened, and half of their emails looked up. About a minute.',
  );
  const { layDemo } = await import('../demo/lay.mjs');
  await layDemo(url, say).catch((error) =>
    fail(`The demo data could not be laid: ${error.message}. Try npm run demo -- --reset.`),
  );
}
say(`\nCrisp Sieve is ready: ${url}\nCtrl C stops it; what you did is kept in ${dataDir}`);
