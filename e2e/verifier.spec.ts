import { expect, test } from '@playwright/test';
import { pick, sent, startWorld, type World } from './world';

let world: World;
test.beforeAll(async () => (world = await startWorld(4730)));
test.afterAll(() => world.stop());

test('where mail servers cannot be reached, a verifier is asked in their place: its price is said first, its bill is what the ledger holds', async ({
  page,
}) => {
  const job = await world.newJob('Leads to verify');
  await world.call('PATCH', `/api/jobs/${job}`, { budgetCents: 500 });
  await world.bring(job, 'saved-leads.csv');
  for (const id of ['screen', 'append-email']) await world.setUp(job, id, {}, false);
  await world.idle();

  await page.goto(`${world.url}/settings?part=mail`);
  await pick(page, 'Mailboxes are asked of', 'Touchstone');
  await sent(page, '/api/settings', () => page.getByRole('button', { name: 'Save' }).click());

  await page.goto(`${world.url}/jobs/${job}?step=verify`);
  const bar = page.locator('cs-ask-bar');
  await expect(bar).toContainText('The verifier is paid for each address that it can say something about: at most');
  await bar.getByRole('button').click();
  await expect(page.getByText(/\d+ of \d+ settled/).first()).toBeVisible();
  await world.idle();

  const { spentCents, summary } = await world.call<{
    spentCents: number;
    summary: { verdicts: Record<string, number> };
  }>('GET', `/api/jobs/${job}`);
  const bill = await world.bill('verifiers/touchstone');
  expect(bill.charges).toBeGreaterThan(20);
  expect(spentCents).toBe(bill.cents);
  expect(summary.verdicts['valid']).toBeGreaterThan(10);
  await page.goto(`${world.url}/ledger`);
  await expect(page.getByRole('cell', { name: /address verified/ }).first()).toBeVisible();
  await expect(page.getByText('Touchstone').first()).toBeVisible();
});
