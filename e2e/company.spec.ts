import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { demoFile, startWorld, type World } from './world';

let world: World;
test.beforeAll(async () => (world = await startWorld(4580)));
test.afterAll(() => world.stop());

const LEADS = readFileSync(demoFile('saved-leads.csv'), 'utf8').split(/\r?\n/).slice(0, 61).join('\n');

test('companies: domains found, websites asked a question, details bought within the budget, an answer by hand, and nothing asked twice', async ({
  page,
}) => {
  test.setTimeout(120_000);
  const newJob = async (name: string) => {
    const { id } = await world.call<{ id: number }>('POST', '/api/jobs', { name, targetValid: 40, budgetCents: 500 });
    await world.bring(id, 'leads.csv', Buffer.from(LEADS));
    await world.idle();
    return id;
  };
  const job = await newJob('Cheese makers');
  await page.goto(`${world.url}/jobs/${job}?step=company`);
  await page.getByRole('button', { name: 'Edit rules' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Look at the companies').check();
  await dialog.getByLabel('Question; empty').fill('Do they make cheese here?');
  await dialog.getByLabel('Words for a yes').fill('we make\ncheesemaker*\ncurd\ncheese is made');
  await dialog.getByLabel('Words for a no').fill('those who make\nwe sell\ncheese vats\nice cream');
  await dialog.getByLabel(/Find missing domains by Fernbank/).check();
  await dialog.getByLabel(/Buy details of each company/).check();
  await dialog.getByLabel('Not sectors').fill('equipment');
  await dialog.getByRole('button', { name: 'Use' }).click();

  const ask = page.getByRole('button', { name: /Ask about \d+/ });
  await expect(page.getByText(/at most £\d+\.\d\d of the £5 left/)).toBeVisible();
  await ask.click();
  const tab = (name: RegExp) => page.getByRole('tab', { name });
  await expect(page.getByRole('button', { name: /^yes [1-9]/ })).toBeVisible({ timeout: 60_000 });
  await world.idle();
  await expect(tab(/^Pass [1-9]/)).toBeVisible();
  const { spentCents } = await world.call<{ spentCents: number }>('GET', `/api/jobs/${job}`);
  expect(spentCents).toBeGreaterThan(0);
  expect(spentCents % 3).toBe(0);

  // One of those that pass: its sentences, its details and people; a key answers for it, and it goes.
  await tab(/^Pass/).click();
  const passing = Number(/\d+/.exec((await tab(/^Pass/).textContent())!)![0]);
  await page.keyboard.press('j');
  const firm = page.locator('cs-firm');
  await expect(firm.locator('blockquote.for').first()).toBeVisible();
  await expect(firm.getByText(/Fernbank, today/)).toBeVisible();
  const name = (await firm.locator('h2').textContent())!;
  await page.keyboard.press('n');
  await expect(tab(new RegExp(`^Pass ${passing - 1}$`))).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(tab(new RegExp(`^Pass ${passing}$`))).toBeVisible();
  await page.getByPlaceholder('Filter').fill(name.split(' ')[0]!.toLowerCase());
  await expect(page.locator('cs-firms tbody tr')).toHaveCount(1);

  // Its people, as rows; and back.
  await page.getByRole('button', { name: 'By person' }).click();
  await expect(page.locator('.ag-row').first()).toBeVisible();
  await page.getByRole('button', { name: 'By company' }).click();
  await expect(page.locator('cs-firms')).toBeVisible();

  // Another job of the same people: what is known is known, nothing is paid, and who is held already wants a look.
  const other = await newJob('The same again');
  const { options } = (
    await world.call<{ sieve: { id: string; options: Record<string, unknown> }[] }>('GET', `/api/jobs/${job}`)
  ).sieve.find(({ id }) => id === 'company')!;
  await world.setUp(other, 'company', options);
  await world.idle();
  await page.goto(`${world.url}/jobs/${other}?step=company`);
  await expect(tab(new RegExp(`^Pass ${passing}$`))).toBeVisible();
  expect(await world.call('GET', `/api/jobs/${other}`)).toMatchObject({ spentCents: 0 });
  await page.goto(`${world.url}/jobs/${other}?step=screen`);
  await page.getByRole('button', { name: 'Edit rules' }).click();
  // The form grows once more when it is known what its rules take.
  await expect(dialog.getByText(/\d come, \d+ pass with what stands here/)).toBeVisible();
  await dialog.getByRole('combobox', { name: 'Who is held in another job too' }).click();
  await page.getByRole('option', { name: 'want a look' }).click();
  await dialog.getByRole('button', { name: 'Use' }).click();
  await expect(tab(/Want a look [1-9]/)).toBeVisible();
  await tab(/Want a look/).click();
  await expect(page.locator('.ag-row').first()).toContainText('held in Cheese makers too');
});
