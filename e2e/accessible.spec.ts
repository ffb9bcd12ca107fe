import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { expect, test, type Page } from '@playwright/test';
import type { AxeResults } from 'axe-core';
import { demoFile, startWorld, type World } from './world';

// WCAG 2.2 at A and AA, as far as axe-core can tell (Deque, MPL 2.0).
const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
const LEVELS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

let world: World;
test.beforeAll(async () => (world = await startWorld(4550)));
test.afterAll(() => world.stop());

async function faults(page: Page): Promise<string[]> {
  await page.evaluate(axe);
  const { violations } = await page.evaluate<AxeResults>(
    `axe.run(document, { runOnly: { type: 'tag', values: ${JSON.stringify(LEVELS)} } })`,
  );
  return violations.flatMap(({ id, nodes }) => nodes.map(({ target }) => `${id}: ${target.join(' ')}`));
}

for (const colorScheme of ['light', 'dark'] as const) {
  test(`screens, dialogs and menus hold to WCAG 2.2 AA: ${colorScheme}`, async ({ browser }) => {
    test.setTimeout(480_000);
    const context = await browser.newContext({ bypassCSP: true, colorScheme, viewport: { width: 1280, height: 800 } });
    const page = await context.newPage();
    const { id } = await world.call<{ id: number }>('POST', '/api/jobs', {
      name: `Accessible, ${colorScheme}`,
      budgetCents: 900,
    });
    await world.bring(id, 'guild-members.txt');
    await world.idle();
    const search = {
      about: 'people',
      conditions: [{ field: 'title', not: false, terms: [{ text: 'technical', exact: false }] }],
    };
    const saved = await world.call<{ id: number }>('POST', '/api/searches', {
      name: 'Leads',
      folder: '',
      jobId: id,
      search,
    });

    const members = await world.call<{ id: string; address: string }>('POST', '/api/pages', {
      address: 'https://curdguild.example/members',
    });

    const look = async (what: string) => expect([what, await faults(page)]).toEqual([what, []]);
    const screens: [path: string, shows: string | RegExp][] = [
      ['/desk', 'Waits for you'],
      ['/jobs', 'Spent'],
      ['/runs', 'rows read'],
      [`/jobs/${id}?step=screen`, 'came in'],
      [`/jobs/${id}?step=append-email`, 'Look up'],
      [`/jobs/${id}?step=append-phone`, 'came in'],
      ['/ledger?month=2020-01', 'Nothing was charged in this month'],
      [`/jobs/${id}?show=sources`, 'guild-members.txt'],
      [`/jobs/${id}/judge`, 'Judge'],
      [`/jobs/${id}/export`, 'Held back'],
      ['/bring', 'Choose files'],
      [`/jobs/${id}/bring?one=1`, 'Add to the job'],
      [`/jobs/${id}/page?upload=${members.id}&address=${encodeURIComponent(members.address)}`, 'Next link found, sure'],
      ['/look-up?q=brackenfield.example', 'In the directory'],
      ['/search', 'Leads'],
      [`/search/${saved.id}`, 'technical'],
      [`/search/${saved.id}?tab=split`, 'technical'],
      [`/search/new?q=${encodeURIComponent('postings where role: quality')}`, 'days old'],
      ['/settings', 'Suppression list'],
    ];
    for (const [path, shows] of screens) {
      await page.goto(world.url + path);
      await expect(page.getByText(shows).first()).toBeVisible();
      await look(path);
    }

    await page.goto(`${world.url}/search/${saved.id}`);
    await page.getByRole('button', { name: 'Title: technical' }).click();
    await expect(page.getByRole('switch', { name: 'as an exact phrase' })).toBeVisible();
    await look('a value of a sentence');
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toHaveCount(0);
    await page.getByLabel('Add a condition').focus();
    await expect(page.getByRole('option').first()).toBeVisible();
    await look('what a sentence can say');

    await page.goto(`${world.url}/jobs/${id}?step=tidy`);
    await page.locator('.ag-row').first().locator('.ag-cell').nth(1).click();
    await expect(page.getByText('Open in full')).toBeVisible();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('heading', { name: 'Where it stands' })).toBeVisible();
    await look('a person in full');
    await page.keyboard.press('n');
    await expect(page.getByLabel('Note')).toBeFocused();
    await look('a person who is written about');
    await page.keyboard.press('Escape');

    // What was asked once is known in every job.
    const town = colorScheme === 'light' ? 'Boyle' : 'Hawes';
    const inTown = { field: 'city', not: false, terms: [{ text: town, exact: true }] };
    const { rows } = await world.call<{ rows: { name: string }[] }>('POST', '/api/directory/page', {
      search: { about: 'people', conditions: [inTown] },
      page: 1,
    });
    const names = await world.newJob(`Names, ${colorScheme}`);
    await world.bring(
      names,
      'names.csv',
      Buffer.from(`Name,Town\n${rows.map(({ name }) => `"${name}",${town}`).join('\n')}`),
    );
    await world.setUp(names, 'profile', {});
    await world.idle();
    await world.call('POST', `/api/jobs/${names}/runs`, { step: 'profile' });
    await world.idle();
    await page.goto(`${world.url}/jobs/${names}?step=profile&fate=look`);
    await page.locator('.ag-row').first().locator('.ag-cell').nth(1).click();
    await expect(page.getByText('None of them')).toBeVisible();
    await look('whose profile it is');
    await page.getByRole('button', { name: 'Set up' }).click();
    await expect(page.getByLabel('at other companies')).toBeVisible();
    await look('how profiles are found');
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toHaveCount(0);

    await page.goto(`${world.url}/jobs/${id}?step=append-email`);
    await page.getByRole('button', { name: 'Set up' }).click();
    await expect(page.getByRole('heading', { name: 'Lookup order' })).toBeVisible();
    await look('set up');
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toHaveCount(0);
    await page.getByRole('button', { name: 'Change the brief' }).click();
    await expect(page.getByRole('heading', { name: 'Brief' })).toBeVisible();
    await look('brief');
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toHaveCount(0);
    await page.keyboard.press('Control+k');
    await expect(page.getByRole('combobox').first()).toBeVisible();
    await look('command field');
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toHaveCount(0);
    await page.getByRole('button', { name: /^Theme/ }).click();
    await expect(page.getByRole('menuitem').first()).toBeVisible();
    await look('menu');
    await page.keyboard.press('Escape');

    const bought = await world.newJob(`Bought, ${colorScheme}`);
    await world.call('PATCH', `/api/jobs/${bought}`, { budgetCents: 100 });
    const emails = readFileSync(demoFile('show-list-2026.csv'), 'latin1').match(/[\w.]+@[\w-]+\.example/g)!;
    await world.bring(bought, 'emails.csv', Buffer.from(['Email', ...emails.slice(0, 20)].join('\n')));
    await world.setUp(bought, 'screen', {}, false);
    await world.setUp(bought, 'owner', { finders: ['lantern'] });
    await world.idle();
    await world.call('POST', `/api/jobs/${bought}/runs`, { step: 'owner' });
    await world.idle();
    await page.goto(`${world.url}/ledger`);
    await expect(page.getByText('Spend by day')).toBeVisible();
    await look('ledger');
    await context.close();
  });
}
