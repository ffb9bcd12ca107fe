import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { settings, type DecisionRow, type Job } from '@sieve/contract';
import { assemble } from '../start';

/** The whole server without listening, on a folder of its own. */
export async function harness() {
  const dataDir = mkdtempSync(join(tmpdir(), 'sieve-test-'));
  const { app, queue, context } = await assemble(
    { port: 0, dataDir, logLevel: 'silent', shipped: settings.parse({}) },
    {
      worker: join(__dirname, '../../../../dist/test-server/threads/worker.js'),
      look: join(__dirname, '../../../../dist/test-server/threads/look.js'),
      migrations: join(__dirname, '../../migrations'),
      patienceMs: 500,
    },
  );
  async function call<T = unknown>(
    method: 'GET' | 'POST' | 'PUT' | 'PATCH',
    url: string,
    body?: object | string | Buffer,
  ): Promise<{ status: number; body: T }> {
    const raw = typeof body === 'string' || Buffer.isBuffer(body);
    const response = await app.inject({
      method,
      url,
      headers: {
        host: '127.0.0.1',
        ...(body !== undefined && { 'content-type': raw ? 'application/octet-stream' : 'application/json' }),
      },
      ...(body !== undefined && { payload: raw ? body : JSON.stringify(body) }),
    });
    return { status: response.statusCode, body: response.json<T>() };
  }
  async function idle() {
    for (;;) {
      const { body } = await call<{ state: string }[]>('GET', '/api/runs');
      if (body.every(({ state }) => state !== 'queued' && state !== 'running')) return;
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
  }
  /** Brings text in as a file and waits until it is sifted. */
  async function bring(job: number, name: string, text: string) {
    const { body: upload } = await call<{ id: string }>('POST', `/api/uploads?name=${name}`, text);
    const { body: found } = await call<{ format: object; rows: number; mapping: { name: string; target: string }[] }>(
      'POST',
      `/api/uploads/${upload.id}/inspect?name=${name}`,
      { jobId: job },
    );
    const columns = found.mapping;
    await call('POST', `/api/jobs/${job}/sources?rows=${found.rows}`, {
      uploadId: upload.id,
      name,
      format: found.format,
      columns,
    });
    await idle();
    return found;
  }
  /** Sets a step of a job up: some options otherwise than they are. */
  async function setUp(job: number, id: string, options: object, on = true) {
    const { body } = await call<Job>('GET', `/api/jobs/${job}`);
    const was = body.sieve.find((step) => step.id === id)!;
    const step = { ...was, on, options: { ...was.options, ...options } };
    return call('POST', `/api/jobs/${job}/steps`, { step, was });
  }
  /** Takes back the last decision about a job that stands; false when none is left. */
  async function undo(job: number) {
    const { body } = await call<DecisionRow[]>('GET', `/api/decisions?subject=job&subjectId=${job}`);
    const last = body.find(({ undoneAt }) => undoneAt === null);
    if (last) await call('POST', `/api/decisions/${last.id}`, { undone: true });
    return last !== undefined;
  }
  return {
    app,
    call,
    undo,
    setUp,
    idle,
    bring,
    queue,
    db: context.db,
    dataDir,
    close: async () => {
      await app.close();
      rmSync(dataDir, { recursive: true, force: true });
    },
  };
}
