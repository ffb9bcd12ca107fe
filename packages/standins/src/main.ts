import { startStandins } from './start';

const number = (name: string) => Number(process.env[name]);

try {
  await startStandins({
    finder: number('STANDIN_FINDER'),
    dns: number('STANDIN_DNS'),
    smtp: number('STANDIN_SMTP'),
    directory: number('STANDIN_DIRECTORY'),
    web: number('STANDIN_WEB'),
    firms: number('STANDIN_FIRMS'),
    topics: number('STANDIN_TOPICS'),
    model: number('STANDIN_MODEL'),
  });
  process.send?.('ready');
} catch (error) {
  const { code, port } = error as NodeJS.ErrnoException & { port?: number };
  process.stderr.write(
    code === 'EADDRINUSE'
      ? `Port ${port} is taken. Choose others with --port N.\n`
      : `The stand-ins could not start: ${code ?? (error as Error).message}\n`,
  );
  process.exit(1);
}
process.on('disconnect', () => process.exit(0));
