import { expect, test } from '@playwright/test';
import { sleep, startWorld, type World } from './world';

interface Job {
  id: number;
  spentCents: number;
  budgetCents: number;
  summary: {
    records: number;
    steps: { id: string; aside: number; waits: number }[];
    verdicts: Record<string, number>;
  } | null;
}

let world: World;
test.beforeAll(async () => (world = await startWorld(4510)));
test.afterAll(() => world.stop());

const runningFar = async (kind: string, least: number) => {
  for (;;) {
    const runs = await world.call<{ input: { kind: string }; done: number; state: string }[]>('GET', '/api/runs');
    const run = runs.find((known) => known.input.kind === kind);
    if (run && (run.done >= least || run.state === 'done')) return run.state;
    await sleep(20);
  }
};

test('a killed server goes on where it was: no row twice, nothing bought twice, the budget kept', async () => {
  test.setTimeout(240_000);
  const { id } = await world.call<Job>('POST', '/api/jobs', { name: 'Kill', targetValid: 100, budgetCents: 300 });
  const lines = Array.from({ length: 60_000 }, (_, i) => `Maren ${i},m${i}@brackenfold.example`);
  const intake = world.bring(id, 'many.csv', Buffer.from(`Name,Email\n${lines.join('\n')}\n`));
  await intake;
  await runningFar('bring-in', 2000);
  await world.kill();
  await world.restart();
  await world.idle();
  expect((await world.call<Job>('GET', `/api/jobs/${id}`)).summary!.records).toBe(60_000);

  const second = await world.call<Job>('POST', '/api/jobs', { name: 'Kill while buying', budgetCents: 300 });
  await world.bring(second.id, 'guild-members.txt');
  await world.idle();
  await world.setUp(second.id, 'append-email', { candidates: 3, finders: ['lantern'] });
  await world.idle();
  await world.call('POST', `/api/jobs/${second.id}/runs`, { step: 'append-email' });
  for (const far of [10, 60]) {
    await runningFar('ask', far);
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

interface Ended {
  input: { kind: string };
  state: string;
  result: { settled: number; silent: number; down: { finder: string; reason: string }[] };
}
/** Asks for a step, and tells how that run ended. */
async function ask(job: number, step: string): Promise<Ended> {
  await world.call('POST', `/api/jobs/${job}/runs`, { step });
  const runs = (await world.idle()) as unknown as Ended[];
  return runs.find(({ input }) => input.kind === 'ask')!;
}
const stepOf = async (job: number, id: string) =>
  (await world.call<Job>('GET', `/api/jobs/${job}`)).summary!.steps.find((step) => step.id === id)!;

test('a finder that is down ends in words; what waits for it goes on waiting', async () => {
  const { id } = await world.call<Job>('POST', '/api/jobs', { name: 'Down', budgetCents: 10_000 });
  await world.bring(id, 'few.csv', Buffer.from('Name,Company,Website\nZed Quorn,Nowhere,downcote.example\n'));
  await world.idle();
  await world.setUp(id, 'append-email', { candidates: 0, finders: ['lantern'] });
  await world.idle();
  await world.scenario({ finderStatus: 500 });
  const { state, result } = await ask(id, 'append-email');
  await world.scenario({});
  expect([state, result.down]).toEqual(['done', [{ finder: 'Lantern', reason: 'it answered 500' }]]);
  expect(await stepOf(id, 'append-email')).toMatchObject({ waits: 1, aside: 0 });
});

test('an outage sets nobody aside, and asking again completes exactly those who waited', async () => {
  const lines = [
    'Name,Company,Website,Email',
    'Zed Quorn,Nowhere,downcote.example,',
    'Maren Quorn,Moss,mosscross.example,',
    'Zed Quorn,Moss,,zed@mosscross.example',
  ].join('\n');
  const jobs = [];
  for (const name of ['Outage', 'Silence', 'Calm']) {
    const { id } = await world.call<Job>('POST', '/api/jobs', { name, budgetCents: 10_000 });
    await world.bring(id, 'few.csv', Buffer.from(`${lines}\n`));
    await world.idle();
    await world.setUp(id, 'append-email', { candidates: 2 });
    await world.idle();
    jobs.push(id);
  }
  const [outage, silence, calm] = jobs as [number, number, number];
  const steps = ['append-email', 'verify'];
  const before = await Promise.all(steps.map((step) => stepOf(outage, step)));
  expect(before.map(({ waits }) => waits)).toEqual([2, 1]);

  await world.outage();
  for (const step of steps) expect((await ask(outage, step)).result.settled).toBe(0);
  await world.outageEnds();
  await world.scenario({ mailSilent: true });
  for (const step of steps) await ask(silence, step);
  await world.scenario({});
  for (const job of [outage, silence])
    expect(
      await Promise.all(steps.map(async (step) => (({ waits, aside }) => [waits, aside])(await stepOf(job, step)))),
    ).toEqual([
      [2, 0],
      [1, 0],
    ]);

  const rows = async (job: number) => {
    for (const step of steps) if ((await stepOf(job, step)).waits > 0) await ask(job, step);
    const pages = ['pass', 'aside', 'waits'].map((fate) =>
      world.call<{ rows: { name: string; email: string; verdict: string; fate: object }[] }>(
        'GET',
        `/api/jobs/${job}/rows?step=append-email&fate=${fate}`,
      ),
    );
    return (await Promise.all(pages)).flatMap((page) =>
      page.rows.map(({ name, email, verdict, fate }) => [name, email, verdict, fate]),
    );
  };
  const undisturbed = await rows(calm);
  expect(await rows(outage)).toEqual(undisturbed);
  expect(await rows(silence)).toEqual(undisturbed);
});

test('whatever kind of run a kill meets, it ends as if there had been none', async () => {
  test.setTimeout(240_000);
  const { id } = await world.call<Job>('POST', '/api/jobs', { name: 'Every kind', budgetCents: 0 });
  for (const step of ['append-email', 'verify']) await world.setUp(id, step, {}, false);
  const lines = Array.from({ length: 20_000 }, (_, i) => `Maren ${i},Owner ${i % 7},m${i}@brackenfold.example`);
  await world.bring(id, 'many.csv', Buffer.from(`Name,Title,Email\n${lines.join('\n')}\n`));
  await world.idle();
  const killed = async (least: number, kind: string) => {
    await runningFar(kind, least);
    await world.kill();
    await world.restart();
    await world.idle();
  };
  const passing = async () =>
    (await world.call<Job>('GET', `/api/jobs/${id}`)).summary!.steps.map(({ aside }) => aside);

  // sift
  await world.call('POST', `/api/jobs/${id}/decisions`, {
    body: { kind: 'group', by: 'title', value: 'Owner 3', fate: 'aside' },
  });
  await killed(0, 'sift');
  expect(Math.max(...(await passing()))).toBe(Math.ceil((20_000 - 3) / 7));

  // export: the files of the one that was killed are those of the one that was not
  const layout = {
    columns: [{ field: 'email', heading: 'Email' }],
    verdicts: ['valid', 'risky', 'unknown', 'none'],
    onlyNew: false,
    rowsEach: 3000,
  };
  const files = async () =>
    (await world.call<{ files: { rows: number; sha256: string }[] }[]>('GET', `/api/jobs/${id}/exports`)).map((done) =>
      done.files.map(({ rows, sha256 }) => [rows, sha256]),
    );
  await world.call('POST', `/api/jobs/${id}/exports`, layout);
  await world.idle();
  await world.call('POST', `/api/jobs/${id}/exports`, layout);
  await killed(0, 'export');
  const [again, before] = await files();
  expect(again).toEqual(before);
  expect(before!.reduce((sum, [rows]) => sum + Number(rows), 0)).toBe(20_000 - Math.ceil((20_000 - 3) / 7));

  // split and pull
  const search = {
    about: 'people',
    conditions: [{ field: 'country', not: false, terms: [{ text: 'GB', exact: true }] }],
  };
  const made = await world.call<{ id: number }>('POST', '/api/searches', { name: 'All', jobId: id, search });
  await world.call('POST', `/api/searches/${made.id}/split`, {});
  await killed(1, 'split');
  const view = () =>
    world.call<{
      splitting: number | null;
      split: { count: number; missing: number; twice: number };
      batchViews: { id: number; count: number }[];
      pulls: { promised: number; came: number; endedAt: number | null }[];
    }>('GET', `/api/searches/${made.id}`);
  const cut = await view();
  expect(cut.batchViews.reduce((sum, { count }) => sum + count, 0)).toBe(cut.split.count);
  expect([cut.splitting, cut.split.missing, cut.split.twice]).toEqual([null, 0, 0]);
  await world.call('POST', `/api/searches/${made.id}/pulls`, {
    batchIds: [cut.batchViews[0]!.id],
    jobId: id,
    first: 400,
  });
  await killed(50, 'pull');
  expect((await view()).pulls).toMatchObject([
    { promised: 400, came: 400, endedAt: expect.any(Number) as unknown as number },
  ]);
});
