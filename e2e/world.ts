import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, type Page } from '@playwright/test';

const root = fileURLToPath(new URL('..', import.meta.url));
export const demoFile = (name: string) => join(root, 'demo', name);

/** The real server and the stand-ins, as processes of their own on a folder of their own. */
export async function startWorld(port: number, dataDir = mkdtempSync(join(tmpdir(), 'sieve-e2e-'))) {
  const env = {
    ...process.env,
    PORT: String(port),
    DATA_DIR: dataDir,
    LOG_LEVEL: 'error',
    STANDIN_FINDER: String(port + 1),
    STANDIN_DNS: String(port + 2),
    STANDIN_SMTP: String(port + 3),
    STANDIN_DIRECTORY: String(port + 4),
    STANDIN_WEB: String(port + 5),
    STANDIN_FIRMS: String(port + 6),
    STANDIN_TOPICS: String(port + 7),
    STANDIN_MODEL: String(port + 8),
  };
  const start = (entry: string) =>
    spawn(process.execPath, [join(root, 'dist', entry)], { env, stdio: ['ignore', 'inherit', 'inherit', 'ipc'] });
  let standins = await startStandins();
  const url = `http://127.0.0.1:${port}`;
  let server: ChildProcess = await startServer();

  async function startStandins(): Promise<ChildProcess> {
    const child = start('standins/main.js');
    await once(child, 'message');
    return child;
  }

  async function startServer(): Promise<ChildProcess> {
    const child = start('server/main.js');
    for (;;) {
      if (
        await fetch(`${url}/api/health`).then(
          (r) => r.ok,
          () => false,
        )
      )
        return child;
      if (child.exitCode !== null) throw new Error('the server ended');
      await sleep(50);
    }
  }

  async function call<T>(method: string, path: string, body?: object): Promise<T> {
    const response = await fetch(url + path, {
      method,
      ...(body && { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    });
    if (!response.ok) throw new Error(`${method} ${path}: ${await response.text()}`);
    return (await response.json()) as T;
  }

  return {
    url,
    call,
    newJob: async (name: string) => (await call<{ id: number }>('POST', '/api/jobs', { name })).id,
    /** The sources of a job, once nothing runs. */
    async sourcesOf(job: number) {
      await this.idle();
      return call<{ name: string; rows: number; unread: number; origin: { kind: string } }[]>(
        'GET',
        `/api/jobs/${job}/sources`,
      );
    },
    /** Sets a step of a job up: some options otherwise than they are. */
    async setUp(job: number, id: string, options: object, on = true) {
      const { sieve } = await call<{ sieve: { id: string; options: object }[] }>('GET', `/api/jobs/${job}`);
      const was = sieve.find((step) => step.id === id)!;
      await call('POST', `/api/jobs/${job}/steps`, {
        step: { ...was, on, options: { ...was.options, ...options } },
        was,
      });
    },
    /** Brings a file in through the API and returns once the run is queued. */
    async bring(job: number, name: string, content = readFileSync(demoFile(name))) {
      const sent = await fetch(`${url}/api/uploads?name=${name}`, {
        method: 'POST',
        headers: { 'content-type': 'application/octet-stream' },
        body: content,
      });
      const { id } = (await sent.json()) as { id: string };
      const found = await call<{ rows: number; format: object; mapping: object[] }>(
        'POST',
        `/api/uploads/${id}/inspect?name=${name}`,
        { jobId: job },
      );
      await call('POST', `/api/jobs/${job}/sources?rows=${found.rows}`, {
        uploadId: id,
        name,
        format: found.format,
        columns: found.mapping,
      });
      return found.rows;
    },
    async idle() {
      for (;;) {
        const runs = await call<{ state: string }[]>('GET', '/api/runs');
        if (runs.every(({ state }) => !['queued', 'running'].includes(state))) return runs;
        await sleep(100);
      }
    },
    /** What a service says it has sold: a finder by its id, others like `phones/doorchime`. */
    bill: async (service = 'lantern') =>
      (await fetch(`http://127.0.0.1:${port + 1}${service === 'lantern' ? '' : `/${service}`}/v1/account`, {
        headers: { authorization: `Bearer ${service.split('/').at(-1)}-demo-key` },
      }).then((r) => r.json())) as {
        cents: number;
        purchases: object[];
        charges: number;
        plan?: { credits: number; left: number };
      },
    /** What the stand-ins do otherwise; the finder's and the directory's are one. */
    scenario: (words: object) =>
      fetch(`http://127.0.0.1:${port + 1}/control/scenario`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(words),
      }),
    /** All outside services at once: name server, mail servers, finder and directory. */
    async outage() {
      standins.kill('SIGKILL');
      await once(standins, 'exit');
    },
    async outageEnds() {
      standins = await startStandins();
    },
    async kill(signal: NodeJS.Signals = 'SIGKILL') {
      server.kill(signal);
      await once(server, 'exit');
    },
    async restart() {
      server = await startServer();
    },
    isUp: () => server.exitCode === null && server.signalCode === null,
    /** Starts a second server on the same folder. @returns how it ended and what it said */
    async second() {
      const child = spawn(process.execPath, [join(root, 'dist/server/main.js')], {
        env: { ...env, PORT: String(port + 9) },
        stdio: ['ignore', 'inherit', 'pipe'],
      });
      let said = '';
      child.stderr.on('data', (chunk) => (said += chunk));
      const [status] = (await once(child, 'exit')) as [number];
      return { status, said };
    },
    stop() {
      server.kill('SIGKILL');
      standins.kill('SIGKILL');
      rmSync(dataDir, { recursive: true, force: true });
    },
  };
}

/** Does what sends something to an address that ends like this, and returns once the server has answered. */
export const sent = (page: Page, ending: string, act: () => Promise<unknown>) =>
  Promise.all([
    page.waitForResponse(
      (response) => response.request().method() !== 'GET' && new URL(response.url()).pathname.endsWith(ending),
    ),
    act(),
  ]);

export type World = Awaited<ReturnType<typeof startWorld>>;
export const sleep = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms));

/** Picks one of the values of a select. */
export async function pick(page: Page, label: string, words: string) {
  await page.getByRole('combobox', { name: label }).click();
  await page.getByRole('option', { name: words, exact: true }).click();
  await expect(page.getByRole('listbox')).toHaveCount(0);
}
