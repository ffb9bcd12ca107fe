// What the other scripts share: installing and building what is missing, ports, words. Runs before npm install.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statfsSync, statSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('..', import.meta.url));
export const say = (words) => process.stdout.write(`${words}\n`);

/** Ends with one clear line. */
export function fail(words) {
  process.stderr.write(`${words}\n`);
  process.exit(1);
}

/** Runs a command in the repository; its output is shown, or only when it fails. */
export function run(command, args, { quiet = false, cwd = root, env = {} } = {}) {
  const result = spawnSync(command, args, {
    cwd,
    stdio: quiet ? 'pipe' : 'inherit',
    encoding: 'utf8',
    env: { ...process.env, ...env },
    maxBuffer: 1 << 28,
  });
  if (quiet && result.status !== 0) process.stderr.write(`${result.stdout ?? ''}${result.stderr ?? ''}`);
  return result.status ?? 1;
}

/** Runs a command while others run; resolves with its status, its output shown. */
export const runBeside = (command, args) =>
  new Promise((resolve) => {
    const child = spawn(command, args, { cwd: root, stdio: 'inherit' });
    child.once('error', () => resolve(1));
    child.once('close', (status) => resolve(status ?? 1));
  });

/** Installs the packages when the lock file is newer than what is installed. */
export function install() {
  const lock = readFileSync(join(root, 'package-lock.json'));
  const stamp = join(root, 'node_modules', '.sieve-lock');
  const wanted = createHash('sha256').update(lock).digest('hex');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  const { bavail, bsize } = statfsSync(root);
  if (bavail * bsize < 1.5e9)
    fail('The disk is nearly full: 1.5 GB are needed to install and build. Free some space and start again.');
  const tools = ['python3', 'make', 'g++'].filter((tool) => spawnSync(tool, ['--version'], { stdio: 'ignore' }).error);
  if (tools.length > 0)
    fail(
      `SQLite has to be compiled and ${tools.join(', ')} is missing. Install it (Debian: apt-get install python3 make g++) and start again.`,
    );
  say('Installing packages. This takes 3 to 5 minutes the first time; SQLite is compiled on the way.');
  const headers = existsSync('/usr/include/node/node.h') ? { npm_config_nodedir: '/usr' } : {};
  if (run('npm', ['ci', '--no-progress', '--loglevel=error'], { env: headers }) !== 0)
    fail('The packages could not be installed; what npm said stands above.');
  writeFileSync(stamp, wanted);
}

/** Builds the application when a source is newer than the last build. */
export function build() {
  const stamp = join(root, 'dist', '.stamp');
  const newest = Math.max(
    ...['packages', 'package-lock.json', 'angular.json', 'scripts'].map((path) => newestIn(join(root, path))),
  );
  if (existsSync(stamp) && Number(readFileSync(stamp, 'utf8')) >= newest) return;
  say('Building. This takes about half a minute.');
  if (run('node', ['scripts/build.mjs'], { quiet: true }) !== 0)
    fail('The application could not be built; what the build said stands above.');
  mkdirSync(join(root, 'dist'), { recursive: true });
  writeFileSync(stamp, String(newest));
}

function newestIn(path) {
  const stat = statSync(path);
  if (!stat.isDirectory()) return stat.mtimeMs;
  return Math.max(
    0,
    ...readdirSync(path)
      .filter((name) => name !== 'node_modules')
      .map((name) => newestIn(join(path, name))),
  );
}

/** True when nothing listens on the port of this machine. */
export const isFree = (port) =>
  new Promise((resolve) => {
    const probe = createServer()
      .once('error', () => resolve(false))
      .listen(port, '127.0.0.1', () => probe.close(() => resolve(true)));
  });

/** Starts the stand-ins and the server; resolves once both answer. */
export async function startAll({ port, dataDir, logLevel = 'warn' }) {
  const ports = {
    STANDIN_FINDER: port + 1,
    STANDIN_DNS: port + 2,
    STANDIN_SMTP: port + 3,
    STANDIN_DIRECTORY: port + 4,
    STANDIN_WEB: port + 5,
    STANDIN_FIRMS: port + 6,
    STANDIN_TOPICS: port + 7,
    STANDIN_MODEL: port + 8,
  };
  for (const wanted of [port, ...Object.values(ports)]) {
    if (!(await isFree(wanted)))
      fail(
        `Port ${wanted} is taken. Choose another with --port N (N to N+8 are used) and, to keep what is there apart, another folder: --port ${port + 10} --data ${dataDir}-${port + 10}`,
      );
  }
  const env = {
    ...process.env,
    ...Object.fromEntries(Object.entries(ports).map(([k, v]) => [k, String(v)])),
    PORT: String(port),
    DATA_DIR: dataDir,
    LOG_LEVEL: logLevel,
  };
  const children = [];
  const start = (file) => {
    const child = spawn(process.execPath, ['--enable-source-maps', join(root, 'dist', file)], {
      cwd: root,
      env,
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    });
    children.push(child);
    return child;
  };
  const stop = () => children.forEach((child) => child.kill('SIGTERM'));
  const standins = start('standins/main.js');
  await new Promise((resolve, reject) => {
    standins.once('message', resolve);
    standins.once('exit', reject);
  }).catch(() => process.exit(1));
  const server = start('server/main.js');
  let ended = false;
  server.once('exit', () => (ended = true));
  const url = `http://127.0.0.1:${port}`;
  for (let i = 0; i < 200; i++) {
    if (ended) {
      stop();
      process.exit(1);
    }
    if (
      await fetch(`${url}/api/health`).then(
        (r) => r.ok,
        () => false,
      )
    )
      return { url, stop, server, standins };
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  stop();
  return fail('The server did not answer within 10 seconds.');
}
