import { fileURLToPath } from 'node:url';
import { readConfig } from './config';
import { toAppError } from './errors';
import { assemble } from './start';

// Paths as they are in dist/server, where the bundle runs.
const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

const say = (words: string) => void process.stderr.write(words);
const config = readConfig(process.env);
// A promise that nobody waited for is a fault of ours and nothing that a person's data should die of.
process.on('unhandledRejection', (error) => say(`Something failed beside a request: ${toAppError(error).code}\n`));

try {
  const { app, queue, scheduler } = await assemble(
    config,
    {
      worker: here('./threads/worker.js'),
      look: here('./threads/look.js'),
      migrations: here('../../packages/server/migrations'),
      webDir: here('../web/browser'),
    },
    { level: config.logLevel },
  );
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.once(signal, () => void app.close().then(() => process.exit(0)));
  await app.listen({ host: '127.0.0.1', port: config.port });
  queue.resume();
  scheduler.start();
} catch (error) {
  say(`${whyNotStarted(error)}\n`);
  process.exit(1);
}

function whyNotStarted(error: unknown): string {
  if ((error as NodeJS.ErrnoException).code === 'EADDRINUSE')
    return `Port ${config.port} is taken. Choose another with --port N, and another folder with --data DIR.`;
  const { code, message } = toAppError(error);
  if (code === 'folder-taken') return `${message} For instance: --data ${config.dataDir}-${config.port}`;
  return `The server could not start. ${code === 'internal' ? String((error as NodeJS.ErrnoException).code ?? error) : message}`;
}
