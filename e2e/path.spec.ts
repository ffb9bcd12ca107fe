import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import ExcelJS from 'exceljs';
import Papa from 'papaparse';
import { demoFile, sent, startWorld, type World, pick } from './world';

let world: World;
let problems: string[];
test.beforeAll(async () => (world = await startWorld(4520)));
test.afterAll(() => world.stop());
test.beforeEach(({ page }) => {
  problems = [];
  page.on('console', (message) => {
    if (message.type() === 'error') problems.push(message.text());
  });
  page.on('pageerror', (error) => problems.push(error.message));
});
test.afterEach(() => expect(problems).toEqual([]));

const count = async (page: Page, tab: string) =>
  Number((await page.getByRole('tab', { name: tab }).locator('.num').textContent())!.replace(/\D/g, ''));
/** Does what starts work on the server, and returns once the work is done and shown. */
const settled = async (page: Page, ending: string, act: () => Promise<unknown>) => {
  await sent(page, ending, act);
  await world.idle();
  await expect(page.getByText('sifting…')).toHaveCount(0);
};

test('a messy file becomes verified batches', async ({ page }) => {
  test.setTimeout(480_000);
  // Bring in: two files into a new job, one column corrected by hand.
  await page.goto(`${world.url}/bring`);
  await page.locator('input[type=file]').setInputFiles([demoFile('guild-members.txt'), demoFile('show-list-2026.csv')]);
  await expect(
    page.getByText('10 of 10 columns recognised', { exact: false }).or(page.getByText('Columns of show-list-2026.csv')),
  ).toBeVisible();
  await expect(page.getByRole('button', { name: 'Bring in 1,121 rows' })).toBeEnabled();
  for (const target of ['Note', 'Own field']) await pick(page, 'What Visited is', target);
  await page.getByRole('button', { name: /rows with a remark/ }).click();
  await expect(page.getByRole('row', { name: /181 a quotation mark is never closed stays out/ })).toBeVisible();
  await page.getByRole('button', { name: 'Bring in 1,121 rows' }).click();
  await settled(page, '/sources', () => page.getByRole('button', { name: 'Bring in 640 rows' }).click());
  await expect(page).toHaveURL(/\/jobs\/\d+$/);
  await expect(page.locator('cs-sieve-pane')).toContainText('1,761');
  const job = Number(/jobs\/(\d+)/.exec(page.url())![1]);

  // Screen: a rule, a row set aside with one key and taken back.
  await page.getByRole('button', { name: 'Edit rules' }).click();
  await page.getByRole('button', { name: 'Rule', exact: true }).click();
  const rule = page.getByRole('group', { name: 'Rule 1', exact: true }).getByLabel('Add a condition');
  await rule.fill('title: assistant, intern, driver, administrator');
  await rule.press('Enter');
  await settled(page, '/steps', () => page.getByRole('button', { name: 'Use' }).click());
  await expect.poll(() => count(page, 'Set aside')).toBeGreaterThan(100);
  const passing = await count(page, 'Pass');
  await page.locator('.ag-row').first().getByRole('gridcell').nth(1).click();
  await expect(page.locator('cs-inspector h2')).not.toBeEmpty();
  await page.keyboard.press('x');
  await expect.poll(() => count(page, 'Pass')).toBe(passing - 1);
  await page.keyboard.press('Control+z');
  await expect.poll(() => count(page, 'Pass')).toBe(passing);

  // The filter leaves the rows that hold its words, on a page that was loaded anew too.
  await page.reload();
  const others = page.locator('.ag-row').filter({ hasNotText: /wells/i });
  await expect(others.first()).toBeVisible();
  await page.keyboard.press('/');
  await page.keyboard.type('wells');
  await expect(others).toHaveCount(0);
  await expect(page.locator('.ag-row').first()).toBeVisible();
  await page.keyboard.type(' nobody');
  await expect(page.getByText('No row here holds “wells nobody”.')).toBeVisible();
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Backspace');
  await expect(others.first()).toBeVisible();
  await page.keyboard.press('Escape');

  // Match: a merge is explained and undone.
  await page.getByRole('button', { name: /Match duplicates/ }).click();
  const contacts = await count(page, 'Pass');
  const records = page.locator('.ag-row').filter({ has: page.locator('[col-id=records]', { hasText: '2' }) });
  await records.first().getByRole('gridcell').nth(1).click();
  await expect(page.locator('cs-inspector')).toContainText('agreed on');
  await page.getByRole('button', { name: 'take apart' }).click();
  await expect.poll(() => count(page, 'Pass')).toBe(contacts + 1);
  await page.getByRole('button', { name: 'Take back' }).click();
  await expect.poll(() => count(page, 'Pass')).toBe(contacts);

  // Append and verify: the estimate first, then the runs; the budget is kept.
  await world.call('PATCH', `/api/jobs/${job}`, { budgetCents: 150, targetValid: 200 });
  await page.getByRole('button', { name: /Append email/ }).click();
  await page.getByRole('button', { name: 'Set up' }).click();
  await expect(page.getByRole('dialog').locator(':focus')).toBeVisible();
  await page.getByRole('button', { name: /^Ask Lantern too/ }).press('Enter');
  await settled(page, '/steps', () => page.getByRole('button', { name: 'Use' }).click());
  await expect(page.getByText(/at most £1.50 of the £1.50 left/)).toBeVisible();
  await settled(page, '/runs', () => page.getByRole('button', { name: /^Look up/ }).click());
  await page
    .getByRole('button', { name: /^Verify/ })
    .first()
    .click();
  const verify = page.locator('cs-ask-bar').getByRole('button', { name: /^Verify/ });
  await settled(page, '/runs', () => verify.click());
  const done = await world.call<{ spentCents: number; summary: { verdicts: Record<string, number> } }>(
    'GET',
    `/api/jobs/${job}`,
  );
  expect(done.spentCents).toBeLessThanOrEqual(150);
  expect((await world.bill()).cents).toBe(done.spentCents);
  const valid = done.summary.verdicts['valid']!;
  expect(valid).toBeGreaterThan(150);

  // Export: batches, then the files read back.
  await page.getByRole('link', { name: 'Export' }).click();
  await page.getByLabel('Rows a file').fill('100');
  await page.getByLabel('Rows a file').press('Tab');
  const files = Math.ceil(valid / 100);
  await page.getByRole('button', { name: `Export ${valid} in ${files} files` }).click();
  await expect(page.locator('.earlier')).toContainText(`${valid} rows`);
  const [{ id, files: written }] = await world.call<[{ id: number; files: { name: string; rows: number }[] }]>(
    'GET',
    `/api/jobs/${job}/exports`,
  );
  const rows: Record<string, string>[] = [];
  for (const { name, rows: expected } of written) {
    const text = await (await fetch(`${world.url}/api/exports/${id}/files/${name}`)).text();
    const read = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, '').trim(), { header: true }).data;
    expect(read).toHaveLength(expected);
    rows.push(...read);
  }
  expect(new Set(rows.map((row) => row['Email'])).size).toBe(valid);
  expect(rows.every((row) => row['First name'] && !/[★🧀]/u.test(row['First name']))).toBe(true);
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'download', exact: true }).click();
  expect(
    readFileSync(await (await download).path())
      .subarray(0, 2)
      .toString(),
  ).toBe('PK');
  await expect(page.getByText('No contact matches this choice', { exact: false })).toBeVisible();

  // Columns move with a key, stay so, and go back with Ctrl Z.
  const headings = () =>
    page.locator('.head input').evaluateAll((all) => all.map((one) => (one as HTMLInputElement).value));
  const usual = await headings();
  await page.getByLabel('Heading of firstName').focus();
  await settled(page, `/jobs/${job}`, () => page.keyboard.press('Alt+ArrowRight'));
  await page.reload();
  await expect.poll(headings).toEqual([usual[1], usual[0], ...usual.slice(2)]);
  await settled(page, `/jobs/${job}`, async () => {
    await page.getByLabel('Heading of email').fill('E-mail');
    await page.getByLabel('Heading of email').press('Tab');
  });
  await page.getByRole('heading', { name: 'The first rows' }).click();
  await page.keyboard.press('Control+z');
  await expect.poll(headings).toEqual([usual[1], usual[0], ...usual.slice(2)]);

  // Once more, all of them, as a workbook.
  await page.getByRole('button', { name: 'All', exact: true }).click();
  await page.getByRole('button', { name: 'XLSX' }).click();
  await page.getByRole('button', { name: 'One file' }).click();
  await page.getByRole('button', { name: `Export ${valid} in 1 file` }).click();
  await expect(page.locator('.earlier')).toHaveCount(2);
  const [latest] = await world.call<[{ id: number; files: { name: string }[] }]>('GET', `/api/jobs/${job}/exports`);
  const book = new ExcelJS.Workbook();
  await book.xlsx.load(
    await (await fetch(`${world.url}/api/exports/${latest.id}/files/${latest.files[0]!.name}`)).arrayBuffer(),
  );
  expect(book.worksheets[0]!.rowCount).toBe(valid + 1);
  expect(book.worksheets[0]!.getCell('A1').text).toBe(usual[1]);
});

test('a page that stays open while the server restarts goes on by itself', async ({ page }) => {
  await page.goto(`${world.url}/desk`);
  await expect(page.getByRole('heading', { name: /desk$/ })).toBeVisible();
  await world.kill();
  await expect(page.getByText('The server does not answer.', { exact: false })).toBeVisible();
  await world.restart();
  await expect(page.getByText('The server does not answer.', { exact: false })).toBeHidden({ timeout: 15_000 });
  problems = problems.filter(
    (words) => !/ERR_CONNECTION_REFUSED|ERR_INCOMPLETE_CHUNKED|ERR_CONNECTION_RESET|ERR_EMPTY_RESPONSE/.test(words),
  );
});

test('pasted rows are read, and a bad file says why', async ({ page }) => {
  await page.goto(`${world.url}/bring`);
  await page.locator('input[type=file]').setInputFiles({
    name: 'picture.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 1, 2, 3, 4, 5, 6, 7, 8]),
  });
  await expect(
    page.getByText('picture.csv is not a table: it holds binary data. Nothing was brought in', { exact: false }),
  ).toBeVisible();
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData('text/plain', 'Name\tEmail\nMaren Oakhill\tm@brackenfold.example');
    document.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));
  });
  await expect(page.getByRole('button', { name: 'Bring in 1 row' })).toBeEnabled();
  problems = problems.filter((words) => !words.includes('422'));
});

test('a saved page comes in as its records, another set of them by keyboard, and only who is new', async ({ page }) => {
  const people = ['Oluchi Tolliver', 'Idris Carvell', 'Ffion Birkett', 'Maren Oakhill'];
  const cards = people.map(
    (name, i) => `<div class="card"><h3>${name}</h3><p class="role">Owner</p><p>Email: p${i}@guild.example</p></div>`,
  );
  const html = `<!doctype html><ul>${'<li>Ashlar Vats</li>'.repeat(6)}</ul><main>${cards.join('')}</main>`;
  const job = await world.call<{ id: number }>('POST', '/api/jobs', { name: 'Guild' });
  const give = async () => {
    await page.goto(`${world.url}/jobs/${job.id}/bring`);
    const file = { name: 'members.html', mimeType: 'text/html', buffer: Buffer.from(html) };
    await page.locator('input[type=file]').setInputFiles(file);
  };
  await give();
  await expect(page.getByRole('button', { name: 'Bring in 4 rows' })).toBeEnabled();
  await page.getByRole('combobox', { name: 'Records' }).focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /^Bring in (?!4 )\d+ rows/ })).toBeVisible();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Bring in 4 rows' }).click();
  await expect(page).toHaveURL(new RegExp(`/jobs/${job.id}$`));
  await world.idle();
  await give();
  await page.getByRole('radio', { name: /Only those new to you 0/ }).click();
  await expect(page.getByRole('button', { name: 'Bring in 0 new rows' })).toBeDisabled();
});

test('everything is found by name from the keyboard', async ({ page }) => {
  await page.goto(`${world.url}/desk`);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await page.keyboard.press('Control+k');
  await expect(page.getByRole('combobox', { name: /Find a job/ })).toBeFocused();
  await page.keyboard.type('settings');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Settings' })).toBeVisible();
  await expect(page.getByText('simulated').first()).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('heading', { name: 'All keys' })).toBeVisible();
});
