// Takes docs/screenshots/*.png of a running demo: node scripts/screenshots.mjs [ADDRESS]
import { readFileSync } from 'node:fs';
import { chromium } from '@playwright/test';

const address = process.argv[2] ?? 'http://127.0.0.1:4270';
const jobs = await fetch(`${address}/api/jobs`).then((response) => response.json());
const searches = await fetch(`${address}/api/searches`).then((response) => response.json());
const search = `/search/${searches.find(({ batches }) => batches > 2).id}`;
const job = `/jobs/${jobs.find(({ name }) => name.includes('Cheese makers')).id}`;
const chooseRow = (page) => page.locator('.ag-row').nth(4).locator('.ag-cell').nth(1).click();
const dropList = async (page) => {
  const data = readFileSync(new URL('../demo/guild-members.txt', import.meta.url));
  await page.locator('input[type=file]').first().setInputFiles({
    name: 'guild-members.txt',
    mimeType: 'text/plain',
    buffer: data,
  });
  await page.waitForTimeout(2500);
};
/** A harvest of the guild's members, half-way: the demo's own is begun here. */
const harvestMembers = async (page) => {
  await page.getByLabel('Or the address of a web page').fill('https://curdguild.example/members');
  await page.keyboard.press('Enter');
  await page.getByRole('combobox', { name: 'Watched column' }).click();
  await page.getByRole('option', { name: 'Stock', exact: true }).click();
  await page.getByLabel('Seconds between two pages').fill('0.5');
  await page.getByRole('button', { name: 'Harvest the pages' }).click();
  await page.getByText('page 12', { exact: true }).waitFor({ timeout: 60_000 });
};
/** A list of names whose profiles are found: people of some towns as the directory lists them, some with their town alone. */
const findProfiles = async (page) => {
  const lines = [];
  for (const town of ['Boyle', 'Hawes', 'Westport']) {
    const city = { field: 'city', not: false, terms: [{ text: town, exact: true }] };
    const { rows } = await fetch(`${address}/api/directory/page`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ search: { about: 'people', conditions: [city] }, page: 1 }),
    }).then((response) => response.json());
    lines.push(...rows.map(({ name, company }, i) => `"${name}","${i % 3 ? company : ''}",${town}`));
  }
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles({
      name: 'speakers.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(['Speaker,Company,Town', ...lines].join('\n')),
    });
  await page.getByLabel('Then find their profiles').check();
  await page.getByRole('button', { name: /^Bring in \d+ rows/ }).click();
  await page.getByRole('button', { name: /^Find profiles \d+$/ }).click();
  await page.getByRole('tab', { name: 'Wait to be asked 0' }).waitFor({ timeout: 60_000 });
  await page.getByRole('tab', { name: /Want a look/ }).click();
  await page.locator('.ag-row').first().locator('.ag-cell').nth(1).click();
  await page.waitForTimeout(8000);
};
/** File, address, what is done there before the picture, theme. */
const VIEWS = [
  ['desk', '/desk'],
  ['jobs', '/jobs'],
  ['job', `${job}?step=screen&fate=look`, chooseRow],
  ['job-dark', `${job}?step=verify`, chooseRow, 'dark'],
  [
    'person',
    `${job}?step=screen&fate=look`,
    async (page) => {
      await page.locator('.ag-row').nth(3).locator('.ag-cell').nth(1).click();
      await page.keyboard.press('Enter');
    },
  ],
  ['runs', '/runs'],
  ['sources', `${job}?show=sources`, (page) => page.locator('section .link').first().click()],
  [
    'companies',
    `/jobs/${jobs.find(({ name }) => name.includes('Australia')).id}?step=company`,
    (page) => page.locator('cs-firms tbody tr').nth(2).click(),
  ],
  ['ledger', '/ledger'],
  ['judge', `${job}/judge`, (page) => page.getByText('Benedikt Prosser').first().click()],
  ['bring', `${job}/bring`, dropList],
  [
    'search',
    `${search}?tab=split`,
    async (page) => {
      await page.getByRole('button', { name: 'Draw a sample' }).click();
      await page.locator('cs-sample-pane li').first().waitFor({ timeout: 60_000 });
      await page.getByRole('button', { name: 'Title: technical' }).click();
      await page.waitForTimeout(1500);
    },
  ],
  [
    'search-rows',
    `/search/new?q=${encodeURIComponent('companies where sector: Cheese making; growth: 5..; technology: "data loggers"')}`,
  ],
  ['searches', '/search'],
  ['harvest', '/bring', harvestMembers],
  ['profiles', '/bring', findProfiles],
  ['look-up', '/look-up?q=rowancote-dairy.example'],
  ['export', `${job}/export`],
  ['settings', '/settings'],
];

const wanted = process.argv.slice(3);
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM_PATH ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-dev-shm-usage'],
});
for (const [name, path, act, colorScheme = 'light'] of VIEWS) {
  if (wanted.length > 0 && !wanted.includes(name)) continue;
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, colorScheme });
  page.on('pageerror', (error) => console.log(`${name}: ${error.message}`));
  await page.goto(address + path);
  await page.waitForTimeout(1800);
  await act?.(page);
  await page.waitForTimeout(500);
  await page.screenshot({ path: new URL(`../docs/screenshots/${name}.png`, import.meta.url).pathname });
  await page.close();
}
await browser.close();
