import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { demoFile, sent, startWorld, type World } from './world';

let world: World;
test.beforeAll(async () => (world = await startWorld(4740)));
test.afterAll(() => world.stop());

test('three finders, one with a plan and one that is down: who it might know goes on waiting, the others do not, and every cent and credit is in the ledger', async ({
  page,
}) => {
  test.setTimeout(240_000);
  const job = await world.newJob('Judges by email');
  await world.call('PATCH', `/api/jobs/${job}`, { budgetCents: 3000 });
  await world.bring(job, 'contest-judges.csv');
  for (const id of ['screen', 'verify']) await world.setUp(job, id, {}, false);
  await world.idle();
  await world.scenario({ finderStatus: 503 });

  await page.goto(`${world.url}/settings`);
  await page.getByRole('button', { name: 'Try Beacon' }).click();
  await expect(page.getByText('40 of the 40 credits of its plan are left')).toBeVisible();
  await page.getByRole('button', { name: 'Try Lantern' }).click();
  await expect(page.getByText('Cannot be asked: it answered 503.')).toBeVisible();

  await page.goto(`${world.url}/jobs/${job}?step=append-email`);
  await page.getByRole('button', { name: 'Set up' }).click();
  const form = page.getByRole('dialog');
  await form.getByLabel('Addresses tried from patterns').fill('1');
  for (const name of ['Beacon', 'Candle', 'Lantern'])
    await form.getByRole('button', { name: `Ask ${name} too` }).click();
  await sent(page, '/steps', () => form.getByRole('button', { name: 'Use' }).click());
  await world.idle();

  const stepNow = async () => {
    const { summary, spentCents } = await world.call<{
      spentCents: number;
      summary: { steps: { id: string; waits: number; aside: number }[] };
    }>('GET', `/api/jobs/${job}`);
    return { spentCents, ...summary.steps.find(({ id }) => id === 'append-email')! };
  };
  const lookUp = page.getByRole('button', { name: /Look up \d+, at most/ });
  await lookUp.click();
  // It is said at the end of the run.
  await expect(page.getByText('Lantern: it answered 503').first()).toBeVisible({ timeout: 120_000 });
  await world.idle();
  const during = await stepNow();
  expect(during.waits).toBeGreaterThan(0);

  await world.scenario({});
  await lookUp.click();
  await expect(page.getByRole('button', { name: /Look up/ })).toHaveCount(0);
  await world.idle();
  const after = await stepNow();
  // Whom nobody knows is set aside when all have answered; who goes on waiting now is at a mail server that says nothing.
  expect(after.waits).toBeLessThan(during.waits / 4);
  expect(after.aside).toBeGreaterThan(during.aside);
  const accounts = await Promise.all(['beacon', 'candle', 'lantern'].map(world.bill));
  expect(after.spentCents).toBe(accounts.reduce((sum, { cents }) => sum + cents, 0));
  expect(accounts[2]!.cents).toBeGreaterThan(0);

  const { credits, left } = accounts[0]!.plan!;
  await page.goto(`${world.url}/ledger`);
  await expect(
    page.getByText(`Of the ${credits} credits of Beacon’s plan for £6 ${credits - left} were used`),
  ).toBeVisible();
  const { all, plans } = await world.call<{ all: { cents: number }; plans: { cents: number; used: number }[] }>(
    'GET',
    `/api/ledger?month=${new Date().toISOString().slice(0, 7)}`,
  );
  expect(plans).toMatchObject([{ cents: 600, used: credits - left }]);
  expect(all.cents).toBe(after.spentCents + 600);
});

test('addresses without names become people: whose they are is asked of finders, and how sure that is stands beside it', async ({
  page,
}) => {
  const job = await world.newJob('Addresses only');
  await world.call('PATCH', `/api/jobs/${job}`, { budgetCents: 2000 });
  const leads = readFileSync(demoFile('show-list-2026.csv'), 'latin1');
  // One that says a name itself is asked of nobody.
  const known = (leads.match(/[\w.]+@[\w-]+\.example/g) ?? [])
    .filter((email) => !/^\w\w+\.\w\w+@/.test(email))
    .slice(0, 60);
  expect(known.length).toBeGreaterThan(10);
  await world.bring(job, 'only.csv', Buffer.from(['Email', ...known].join('\n')));
  for (const id of ['screen', 'append-email', 'verify']) await world.setUp(job, id, {}, false);
  await world.idle();

  await page.goto(`${world.url}/jobs/${job}?step=owner`);
  await page.getByRole('button', { name: 'Set up' }).click();
  const form = page.getByRole('dialog');
  await form.getByLabel('Ask who has an address that came without a name').check();
  for (const name of ['Lantern', 'Candle']) await form.getByRole('button', { name: `Ask ${name} too` }).click();
  await sent(page, '/steps', () => form.getByRole('button', { name: 'Use' }).click());
  await world.idle();
  const bar = page.locator('cs-ask-bar');
  await expect(bar).toContainText(/addresses without a name\.\s+Each finder is paid as it charges: at most/);
  await bar.getByRole('button', { name: /Ask about/ }).click();
  await expect(bar.getByRole('button', { name: /Ask about/ })).toHaveCount(0);
  await world.idle();
  const { rows } = await world.call<{ rows: { name: string; email: string; company: string }[] }>(
    'GET',
    `/api/jobs/${job}/rows?step=owner&limit=100`,
  );
  const named = rows.filter(({ name }) => name !== '');
  expect(named.length).toBeGreaterThan(known.length / 2);
  await page.getByRole('tab', { name: /Pass/ }).click();
  await page.getByText(named[0]!.email).first().click();
  await expect(page.getByText(/from (Lantern|Candle), 99 % sure/).first()).toBeVisible();
});
