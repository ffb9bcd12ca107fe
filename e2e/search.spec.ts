import { expect, test } from '@playwright/test';
import { sent, startWorld, type World, pick } from './world';

interface SearchView {
  id: number;
  split: { fewest: number; outOfReach: number; missing: number; twice: number; byHand: boolean } | null;
  batchViews: {
    count: number;
    search: { conditions: { field: string }[] };
    pull: { came: number; fresh: number; promised: number; endedAt: number | null } | null;
  }[];
  pulls: { came: number; fresh: number; promised: number; standing: boolean; endedAt: number | null }[];
}

let world: World;
test.beforeAll(async () => (world = await startWorld(4530)));
test.afterAll(() => world.stop());

const records = async (job: number) =>
  (await world.call<{ summary: { records: number } | null }>('GET', `/api/jobs/${job}`)).summary?.records ?? 0;

test('compose, sample, split, pull with a restart in between; a standing search brings only what is new', async ({
  page,
}) => {
  test.setTimeout(480_000);
  const { id: job } = await world.call<{ id: number }>('POST', '/api/jobs', { name: 'Ireland' });

  // Compose with the keyboard; a wrong value says what would be right.
  await page.goto(`${world.url}/search/new`);
  const caret = page.getByLabel('Add a condition');
  const say = async (words: string) => {
    await caret.focus();
    await page.keyboard.type(words);
    await page.keyboard.press('Enter');
  };
  await say('quality manager');
  await say('title: "head of quality", "production manager", technical, owner, founder');
  await say('not title: assistant');
  // A field is found by its name, its values are typed behind it.
  await say('countr');
  await page.keyboard.type('IE');
  await page.keyboard.press('Enter');
  await say('headcount: many');
  await expect(page.getByText('One of: 1-4, 5-10', { exact: false })).toBeVisible();
  await page.keyboard.press('Control+a');
  await page.keyboard.type('headcount: 1-4, 5-10, 11-50, 51-200, 201-500');
  await page.keyboard.press('Enter');
  // A value is taken out from where one is, without the mouse.
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('Delete');
  await expect(page.getByRole('button', { name: 'Headcount: 201-500' })).toBeHidden();
  const count = page.locator('.total .big');
  const counted = async () => {
    await expect(count).not.toHaveClass(/dim/);
    return Number((await count.textContent())!.replace(/\D/g, ''));
  };
  await expect(count).toHaveText(/^[\d,]{4,}$/);
  expect(decodeURIComponent(page.url())).toContain('"head of quality"');

  // The sample is checked, and says which loose words let the misfits in; quotation marks narrow the search.
  const before = await counted();
  await page.getByRole('button', { name: 'Draw a sample' }).click();
  await expect(page.locator('cs-sample-pane li')).toHaveCount(20, { timeout: 20_000 });
  await page.getByRole('button', { name: 'Title: quality manager', exact: true }).click();
  const promise = page.getByRole('dialog', { name: 'Title' }).locator('.effect b');
  await expect(promise).toHaveText(/\d/);
  const promised = Number((await promise.textContent())!.replace(/\D/g, ''));
  await sent(page, '/directory/count', () => page.getByRole('switch', { name: 'as an exact phrase' }).click());
  const after = await counted();
  expect(after).toBeLessThan(before);
  expect(after).toBe(promised);
  expect(after).toBeGreaterThan(2500);

  // Split, into no more batches than one over the fewest, each under the cap.
  await page.getByRole('button', { name: 'Split', exact: true }).first().click();
  await expect(page.getByText('None overlap.', { exact: false })).toBeVisible();
  const searchId = Number(/search\/(\d+)/.exec(page.url())![1]);
  const view = () => world.call<SearchView>('GET', `/api/searches/${searchId}`);
  const cut = await view();
  expect(cut.split).toMatchObject({ outOfReach: 0, missing: 0 });
  expect(cut.batchViews.length).toBeLessThanOrEqual(cut.split!.fewest + 1);
  expect(Math.max(...cut.batchViews.map((batch) => batch.count))).toBeLessThanOrEqual(2500);

  // By hand: a batch is cut further, and two are joined; nothing is missing or there twice. Then split anew.
  const batches = async () => (await view()).batchViews.length;
  const byYears = cut.batchViews[0]!.search.conditions.some(({ field }) => field === 'years');
  await page.getByRole('button', { name: 'Change batch 1' }).click();
  await page.getByRole('menuitem', { name: `Split here by ${byYears ? 'team' : 'years in role'}` }).click();
  await expect.poll(batches).toBeGreaterThan(cut.batchViews.length);
  const more = await batches();
  await page.getByRole('button', { name: 'Change batch 1' }).click();
  await page.getByRole('menuitem', { name: 'Join with the next' }).click();
  await expect.poll(batches).toBe(more - 1);
  expect((await view()).split).toMatchObject({ missing: 0, twice: 0, byHand: true });
  await page.getByRole('button', { name: 'Split', exact: true }).first().click();
  await expect.poll(async () => (await view()).split!.byHand).toBe(false);

  // Pull: the time first; the server is killed in the middle of a batch and goes on where it was; the session ends often.
  await pick(page, 'Rows go to', 'Ireland');
  await expect(page.getByText(/rows · done .* a second/)).toBeVisible();
  await world.scenario({ sessionSeconds: 2 });
  await page.getByRole('button', { name: /^Pull/ }).click();
  const came = async () => (await view()).pulls.reduce((sum, pull) => sum + pull.came, 0);
  await expect.poll(came, { timeout: 30_000 }).toBeGreaterThan(100);
  await world.kill();
  await world.restart();
  await world.idle();
  const done = await view();
  for (const { promised, came: rows, endedAt } of done.pulls) {
    expect(endedAt).not.toBeNull();
    expect(rows).toBe(promised);
  }
  const total = done.pulls.reduce((sum, pull) => sum + pull.fresh, 0);
  expect(await records(job)).toBe(total);
  expect(total).toBe(done.batchViews.reduce((sum, batch) => sum + batch.count, 0));

  // Some days later people have joined: asked again, only they come.
  await world.scenario({ daysAhead: 30 });
  await page.reload();
  await page.getByRole('tab', { name: /What came/ }).click();
  await pick(page, 'Ask again', 'every');
  await expect(page.getByText(/Asked again \w+ \d+ \w+/)).toBeVisible();
  await sent(page, '/ask-now', () => page.getByRole('button', { name: 'Ask now' }).click());
  // A batch that has outgrown the cap is split anew first; the pulls follow by the clock.
  const standing = async () => (await view()).pulls.filter((pull) => pull.standing);
  await expect.poll(async () => (await standing()).length, { timeout: 60_000 }).toBeGreaterThan(0);
  await world.idle();
  const again = await standing();
  const joined = again.reduce((sum, pull) => sum + pull.fresh, 0);
  expect(joined).toBeGreaterThan(0);
  expect(joined).toBeLessThan(total * 0.1);
  expect(await records(job)).toBe(total + joined);
});

test('rows are picked with the keyboard onto a list, and the list goes to a job', async ({ page }) => {
  await world.scenario({});
  const { id: job } = await world.call<{ id: number }>('POST', '/api/jobs', { name: 'Picked' });
  await page.goto(
    `${world.url}/search/new?q=${encodeURIComponent('companies where sector: Cheese making; country: IE')}`,
  );
  await expect(page.locator('tr.row')).toHaveCount(25);
  await page.keyboard.press('Space');
  await page.keyboard.press('j');
  await page.keyboard.press('Space');
  await expect(page.getByText('2 marked')).toBeVisible();
  await page.getByRole('button', { name: 'People in them' }).click();
  await expect(page).toHaveURL(/q=people/);
  await expect(page.locator('tr.row').first()).toBeVisible();
  await page.locator('tr.row').first().click();
  await page.keyboard.press('Space');
  await page.getByRole('button', { name: 'Pick…' }).click();
  await page.getByRole('menuitem', { name: 'The marked rows' }).click();
  await page.getByRole('textbox', { name: 'Name of a new list' }).fill('Good ones');
  await page.getByRole('button', { name: 'Pick', exact: true }).click();
  await expect(page.getByText('1 picked; Good ones has 1')).toBeVisible();
  await expect(page.locator('tr.row').first()).toContainText('yours');
  await page.goto(`${world.url}/search`);
  await page.getByRole('link', { name: 'Good ones' }).click();
  await pick(page, 'Job', 'Picked');
  await sent(page, '/to-job', () => page.getByRole('button', { name: 'Add to the job' }).click());
  await world.idle();
  expect(await records(job)).toBe(1);
});

test('a directory that is down says so and can be asked again', async ({ page }) => {
  await world.scenario({ directoryStatus: 500 });
  await page.goto(`${world.url}/search/new?q=${encodeURIComponent('people where team: quality')}`);
  await expect(page.getByText('What was pulled before is kept', { exact: false })).toBeVisible({ timeout: 20_000 });
  await world.scenario({});
  await page.getByRole('button', { name: 'Ask again' }).click();
  await expect(page.locator('.total .big')).toHaveText(/^[\d,]+$/);
});
