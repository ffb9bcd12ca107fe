import { spawnSync } from 'node:child_process';
import { closeSync, mkdtempSync, openSync, rmSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { sleep, startWorld, type World } from './world';

// A disk of its own, small enough to fill: only root may mount one. server/src/db/full.test.ts does without.
const disk = mkdtempSync(join(tmpdir(), 'sieve-disk-'));
const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=128m', 'tmpfs', disk]).status === 0;
const ballast = join(disk, 'ballast');

function fill() {
  const file = openSync(ballast, 'a');
  try {
    for (;;) writeSync(file, Buffer.alloc(4096));
  } catch (error) {
    expect((error as NodeJS.ErrnoException).code).toBe('ENOSPC');
  } finally {
    closeSync(file);
  }
}
const free = () => rmSync(ballast);

let world: World;
test.beforeAll(async () => {
  if (mounted) world = await startWorld(4540, join(disk, 'data'));
});
test.afterAll(() => {
  world?.stop();
  if (mounted) spawnSync('umount', ['-l', disk]);
});

const status = async (method: string, path: string, body?: object) =>
  (
    await fetch(world.url + path, {
      method,
      ...(body && { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    })
  ).status;
const table = (rows: number) =>
  Buffer.from(
    `Name,Email\n${Array.from({ length: rows }, (_, i) => `Maren O${i},m${i}@firm${i}.example`).join('\n')}\n`,
  );
const records = async (job: number) =>
  (await world.call<{ summary: { records: number } }>('GET', `/api/jobs/${job}`)).summary.records;

test('a full disk: every write says so and keeps nothing half, the server lives, starts, and goes on when there is room', async () => {
  test.skip(!mounted, 'no disk may be mounted here');
  const { id } = await world.call<{ id: number }>('POST', '/api/jobs', { name: 'Full' });
  await world.bring(id, 'first.csv', table(500));
  await world.idle();
  for (const step of ['append-email', 'verify']) await world.setUp(id, step, {}, false);
  await world.idle();
  const kept = () => world.call<object[]>('GET', `/api/decisions?subject=job&subjectId=${id}`);
  const before = await kept();
  const layout = { columns: [{ field: 'email', heading: 'Email' }], verdicts: ['none', 'valid', 'risky', 'unknown'] };

  const writes: [string, string, object][] = [
    ['POST', '/api/jobs', { name: 'Another' }],
    ['PATCH', `/api/jobs/${id}`, { name: 'Renamed' }],
    ['POST', `/api/jobs/${id}/decisions`, { body: { kind: 'set-aside', recordIds: [1] } }],
    ['POST', `/api/decisions/${(before[0] as { id: number }).id}`, { undone: true }],
    ['POST', '/api/pick-lists', { name: 'List', about: 'people' }],
    ['POST', '/api/suppressions', { text: 'firm1.example' }],
    ['POST', `/api/jobs/${id}/exports`, layout],
  ];
  for (const [method, path, body] of writes) {
    fill();
    expect([path, await status(method, path, body)]).toEqual([path, 507]);
  }
  expect(await kept()).toEqual(before);
  expect(await world.call<object[]>('GET', '/api/jobs')).toHaveLength(1);
  expect(await world.call<object[]>('GET', '/api/suppressions')).toHaveLength(0);

  // Full in the middle of a run: it ends in words, and what it could not write is written later.
  free();
  const second = await world.call<{ id: number }>('POST', '/api/jobs', { name: 'Full in the middle' });
  await world.bring(second.id, 'second.csv', table(60_000));
  while ((await world.call<{ done: number }[]>('GET', '/api/runs'))[0]!.done === 0) await sleep(10);
  fill();
  const runOf = async () =>
    (
      await world.call<{ jobId: number; state: string; input: { kind: string }; result: { error?: string } }[]>(
        'GET',
        '/api/runs',
      )
    ).find((run) => run.jobId === second.id && run.input.kind === 'bring-in')!;
  await expect.poll(async () => (await runOf()).state).toBe('failed');
  expect((await runOf()).result.error).toBe('disk-full');
  expect(world.isUp()).toBe(true);

  for (const signal of ['SIGKILL', 'SIGTERM'] as const) {
    fill();
    await world.kill(signal);
    fill();
    await world.restart();
    expect(await records(id)).toBe(500);
  }

  free();
  const { id: runId } = (
    await world.call<{ id: number; jobId: number; input: { kind: string } }[]>('GET', '/api/runs')
  ).find((run) => run.jobId === second.id && run.input.kind === 'bring-in')!;
  await expect.poll(async () => (await runOf()).state).not.toBe('running');
  if ((await runOf()).state === 'failed')
    expect(await status('POST', `/api/runs/${runId}`, { action: 'resume' })).toBe(200);
  const ended = (await world.idle()) as { jobId: number; state: string }[];
  expect(ended.filter(({ jobId, state }) => jobId === second.id && state === 'failed')).toEqual([]);
  expect(await records(second.id)).toBe(60_000);
  expect(await records(id)).toBe(500);
});

test('a folder is one server’s: the second is told whose', async () => {
  const own = mounted ? world : await startWorld(4540);
  world = own;
  const { status: ended, said } = await own.second();
  expect(ended).toBe(1);
  expect(said).toContain(own.url);
  expect(said).toContain('--data');
});
