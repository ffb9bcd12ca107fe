import { expect, test } from '@playwright/test';
import { sleep, startWorld, type World } from './world';

interface Job {
  id: number;
  spentCents: number;
  budgetCents: number;
  summary: { records: number; steps: { append: { waits: number } }; verdicts: Record<string, number> } | null;
}

let world: World;
test.beforeAll(async () => (world = await startWorld(4510)));
test.afterAll(() => world.stop());

const runningFar = async (kind: string, least: number) => {
  for (;;) {
    const runs = await world.call<{ kind: string; done: number; state: string }[]>('GET', '/api/runs');
    const run = runs.find((known) => known.kind === kind);
    if (run && (run.done >= least || run.state === 'done')) return run.state;
    await sleep(20);
  }
};

test('a killed server goes on where it was: no row twice, nothing bought twice, the budget kept', async () => {
  const { id } = await world.call<Job>('POST', '/api/jobs', { name: 'Kill', targetValid: 100, budgetCents: 300 });
  const lines = Array.from({ length: 60_000 }, (_, i) => `Maren ${i},m${i}@brackenfold.example`);
  const intake = world.bring(id, 'many.csv', Buffer.from(`Name,Email\n${lines.join('\n')}\n`));
  await intake;
  await runningFar('intake', 2000);
  await world.kill();
  await world.restart();
  await world.idle();
  expect((await world.call<Job>('GET', `/api/jobs/${id}`)).summary!.records).toBe(60_000);

  const second = await world.call<Job>('POST', '/api/jobs', { name: 'Kill while buying', budgetCents: 300 });
  await world.bring(second.id, 'guild-members.txt');
  await world.idle();
  await world.call('POST', `/api/jobs/${second.id}/steps`, {
    options: { kind: 'append', on: true, candidates: 3, finders: ['lantern'] },
  });
  await world.idle();
  await world.call('POST', `/api/jobs/${second.id}/runs`, { kind: 'append' });
  for (const far of [10, 60]) {
    await runningFar('append', far);
    await world.kill();
    await world.restart();
  }
  await world.idle();
  const job = await world.call<Job>('GET', `/api/jobs/${second.id}`);
  const bill = await world.bill();
  expect(job.spentCents).toBeGreaterThan(0);
  expect(job.spentCents).toBeLessThanOrEqual(300);
  expect(bill.cents).toBe(job.spentCents);
});

test('a finder that is down and mail servers that are silent end in words, not in loss', async () => {
  const { id } = await world.call<Job>('POST', '/api/jobs', { name: 'Down', budgetCents: 10_000 });
  await world.bring(id, 'few.csv', Buffer.from('Name,Company,Website\nZed Quorn,Nowhere,downcote.example\n'));
  await world.idle();
  await world.call('POST', `/api/jobs/${id}/steps`, {
    options: { kind: 'append', on: true, candidates: 0, finders: ['lantern'] },
  });
  await world.idle();
  await world.scenario({ finderStatus: 500 });
  await world.call('POST', `/api/jobs/${id}/runs`, { kind: 'append' });
  const runs = (await world.idle()) as unknown as { kind: string; state: string; message: string }[];
  const run = runs.find(({ kind }) => kind === 'append')!;
  expect([run.state, run.message]).toEqual([
    'done',
    expect.stringContaining('it answered 500; what waits for it can be asked later'),
  ]);
  await world.scenario({ mailSilent: true });
  await world.bring(id, 'mail.csv', Buffer.from('Name,Email\nZed Quorn,zed@mosscross.example\n'));
  await world.idle();
  await world.call('POST', `/api/jobs/${id}/runs`, { kind: 'verify' });
  await world.idle();
  await world.scenario({});
  expect((await world.call<Job>('GET', `/api/jobs/${id}`)).summary!.verdicts['unknown']).toBe(1);
});
