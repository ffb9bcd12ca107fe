import { fileURLToPath } from 'node:url';
import { readConfig } from './config';
import { assemble } from './start';

// Paths as they are in dist/server, where the bundle runs.
const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

const config = readConfig(process.env);
const { app, queue, scheduler } = await assemble(
  config,
  {
    worker: here('./threads/worker.js'),
    migrations: here('../../packages/server/migrations'),
    webDir: here('../web/browser'),
  },
  { level: config.logLevel },
);

for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.once(signal, () => void app.close().then(() => process.exit(0)));

try {
  await app.listen({ host: '127.0.0.1', port: config.port });
  queue.resume();
  scheduler.start();
} catch (error) {
  const { code } = error as NodeJS.ErrnoException;
  process.stderr.write(
    code === 'EADDRINUSE'
      ? `Port ${config.port} is taken. Choose another with --port N.\n`
      : `The server could not start: ${code ?? 'unknown reason'}\n`,
  );
  process.exit(1);
}
