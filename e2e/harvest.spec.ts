import { expect, test } from '@playwright/test';
import { pick, sent, startWorld, type World } from './world';

test.describe.configure({ mode: 'serial' });
let world: World;
test.beforeAll(async () => (world = await startWorld(4560)));
test.afterAll(() => world.stop());

test('an address by keyboard: its records, the pages after it, and a server that is killed on the way', async ({
  page,
}) => {
  const job = await world.newJob('Guild');
  await page.goto(`${world.url}/jobs/${job}/bring`);
  await page.getByLabel('Or the address of a web page').fill('curdguild.example/members');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Next link found, sure')).toBeVisible();
  await expect(page.getByText('robots.txt allows it')).toBeVisible();
  const shown = page.frameLocator('iframe');
  await expect(shown.locator('[data-record]')).toHaveCount(24);
  await expect(shown.locator('script, img, form, a[href]')).toHaveCount(0);
  await page.keyboard.press('j');
  await expect(page.getByText('5 rows on this page')).toBeVisible();
  await page.keyboard.press('k');
  await page.getByLabel('Seconds between two pages').fill('0.2');
  await page.getByLabel('Pages at most').fill('8');
  await page.keyboard.press('Tab');
  const go = page.getByRole('button', { name: 'Harvest the pages' });
  await go.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('page 3', { exact: true })).toBeVisible();
  await world.kill();
  await world.restart();
  await expect(page.getByText('8 pages; as many pages as were asked for.')).toBeVisible();
  await expect(page.getByText('192 rows')).toBeVisible();
  await page.reload();
  await expect(page.getByText('192 rows')).toBeVisible();
  expect((await world.sourcesOf(job)).map(({ rows, origin }) => [rows, origin.kind])).toEqual([[192, 'harvest']]);
  await page.getByRole('link', { name: 'To the job' }).click();
  await expect(page.getByText('Tamsin Kershaw').first()).toBeVisible();
});

test('it stops where the watched column turns, and tells the page whose layout is another', async ({ page }) => {
  const job = await world.newJob('In stock');
  await page.goto(`${world.url}/jobs/${job}/bring`);
  await page.getByLabel('Or the address of a web page').fill('https://curdguild.example/members?p=16');
  await page.keyboard.press('Enter');
  await pick(page, 'Watched column', 'Stock');
  await page.getByLabel('Seconds between two pages').fill('0.2');
  await sent(page, '/harvests', () => page.getByRole('button', { name: 'Harvest the pages' }).click());
  await expect(page.getByText('pages; the watched column turned.')).toBeVisible();
  await expect(page.getByText('1 not read')).toBeVisible();
  await page.getByRole('link', { name: /another layout/ }).click();
  await expect(page.getByText('24 rows on this page')).toBeVisible();
});

test('new members come when it is asked again; a site that forbids, a page that is none', async ({ page }) => {
  const [first] = await world.sourcesOf(1);
  const { harvestId } = first!.origin as { kind: string; harvestId: number };
  await world.scenario({ daysAhead: 2 });
  await page.goto(`${world.url}/jobs/1/page?harvest=${harvestId}`);
  await page.getByRole('button', { name: 'Ask again now' }).click();
  await expect(page.getByText('6 new to you')).toBeVisible();
  await expect(page.getByText('pages; a page brought nothing new.')).toBeVisible();
  await world.idle();
  expect((await world.sourcesOf(1)).map(({ rows }) => rows)).toEqual([192, 6]);
  await page.getByRole('link', { name: 'Another page' }).click();
  for (const [address, words] of [
    ['curdguild.example/private/ledger', /robots\.txt of curdguild\.example does not allow/],
    ['curdguild.example/handbook.pdf', /is no web page but application\/pdf/],
    ['curdguild.example/away', /is not on the public internet/],
  ] as const) {
    await page.getByLabel('Or the address of a web page').fill(address);
    await page.keyboard.press('Enter');
    await expect(page.getByText(words).first()).toBeVisible();
  }
});
