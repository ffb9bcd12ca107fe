import { readFileSync } from 'node:fs';
import { buffer } from 'node:stream/consumers';
import { fileURLToPath } from 'node:url';
import { expect, test, type Page } from '@playwright/test';
import archiver from 'archiver';
import { sent, startWorld, type World } from './world';

test.describe.configure({ mode: 'serial' });
let world: World;
test.beforeAll(async () => (world = await startWorld(4590)));
test.afterAll(() => world.stop());

const choose = (page: Page, name: string, content: Buffer | string, mimeType = 'application/octet-stream') =>
  page.locator('input[type=file]').setInputFiles({ name, mimeType, buffer: Buffer.from(content) });
const press = async (page: Page, name: string | RegExp) => {
  await page.getByRole('button', { name }).focus();
  await page.keyboard.press('Enter');
};

test('a zip of files and all sheets of an OpenDocument book, each a source of its own, brought in with one key', async ({
  page,
}) => {
  const job = await world.newJob('Files');
  const archive = archiver('zip');
  archive.append('Name;Email\nMaren Oakhill;maren@brackenfold.example\n', { name: 'lists/first.csv' });
  archive.append('BEGIN:VCARD\r\nVERSION:3.0\r\nFN:Piers Venn\r\nN:Venn;Piers;;;\r\nEND:VCARD\r\n', {
    name: 'second.vcf',
  });
  void archive.finalize();
  await page.goto(`${world.url}/jobs/${job}/bring`);
  await choose(page, 'lists.zip', await buffer(archive));
  await press(page, 'Bring in all 2 files');
  await page.waitForURL(`**/jobs/${job}`);
  expect((await world.sourcesOf(job)).map(({ name, rows, origin }) => [name, rows, origin.kind])).toEqual([
    ['first.csv', 1, 'table'],
    ['second.vcf', 1, 'cards'],
  ]);

  await page.goto(`${world.url}/jobs/${job}/bring`);
  const book = new URL('../packages/server/src/sources/fixtures/guild.ods', import.meta.url);
  await choose(page, 'guild.ods', readFileSync(fileURLToPath(book)));
  await expect(page.getByLabel('joined with the row above')).toBeChecked();
  await press(page, 'Take the other sheet, too');
  await expect(page.getByText('guild.ods, Sponsors')).toBeVisible();
});

test('a page’s source, JSON and rows are pasted; what they are is seen', async ({ page }) => {
  const job = await world.newJob('Pasted');
  await page.goto(`${world.url}/jobs/${job}/bring`);
  const paste = (text: string) =>
    page.evaluate((content) => {
      const data = new DataTransfer();
      data.setData('text/plain', content);
      document.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));
    }, text);
  const item = (name: string) => `<li><b>${name}</b>, Wells</li>`;
  for (const [text, kind] of [
    [
      `<html><body><ul>${['Maren Oakhill', 'Piers Venn', 'Rhona Holm'].map(item).join('\n')}</ul></body></html>`,
      'a web page',
    ],
    ['[{"name":"Maren Oakhill","email":"m@a.example"},\n{"name":"Piers Venn","email":"p@a.example"}]', 'JSON'],
    ['Name\tEmail\nMaren Oakhill\tm@a.example\n', 'rows of a table'],
  ] as const) {
    await page.reload();
    await expect(page.getByText('Drop a file here')).toBeVisible();
    await paste(text);
    await expect(page.getByRole('combobox', { name: 'Read as' })).toContainText(kind);
  }
  await press(page, /Bring in 1 row/);
  await page.waitForURL(`**/jobs/${job}`);
  expect((await world.sourcesOf(job))[0]).toMatchObject({ rows: 1 });
});

test('one contact from a signature; who is held is told, and looked up by the website with Ctrl K', async ({
  page,
}) => {
  const job = await world.newJob('By hand');
  await page.goto(`${world.url}/jobs/${job}/bring?one=1`);
  await page
    .getByLabel('A signature, a card or a text to read')
    .fill(
      'Gwenllian Parry\nQuality Manager\nCaws Penllyn\n020 7946 0318\ng.parry@penllyn.example\nwww.penllyn.example',
    );
  await page.keyboard.press('Tab');
  await expect(page.getByLabel('Full name')).toHaveValue('Gwenllian Parry');
  await expect(page.getByLabel('Company')).toHaveValue('Caws Penllyn');
  await page.getByLabel('Full name').focus();
  await sent(page, '/contacts', () => page.keyboard.press('Enter'));
  expect((await world.sourcesOf(job)).map(({ name, origin }) => [name, origin.kind])).toEqual([
    ['Gwenllian Parry', 'typed'],
  ]);
  await page.getByLabel('Email', { exact: true }).fill('g.parry@penllyn.example');
  await expect(page.getByText('Held already')).toBeVisible();

  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Find a job, contact or action' }).fill('https://www.penllyn.example');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('link', { name: 'Gwenllian Parry' })).toBeVisible();
  await expect(page.getByText('1 held')).toBeVisible();
});

test('what could not be read is downloaded, mended and closes its gap', async ({ page }) => {
  const job = await world.newJob('Gap');
  await page.goto(`${world.url}/jobs/${job}/bring`);
  await choose(
    page,
    'torn.csv',
    `Name,Email\nMaren Oakhill,m@a.example\nPiers Venn,${'y'.repeat(33_000)}\nRhona Holm,r@a.example\n`,
  );
  await press(page, /Bring in 2 rows/);
  await page.waitForURL(`**/jobs/${job}`);
  await world.sourcesOf(job);
  await page.goto(`${world.url}/jobs/${job}?show=sources`);
  await page.getByRole('button', { name: /1 not read/ }).click();
  const downloading = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Download the 1 to mend' }).click();
  const file = readFileSync(await (await downloading).path(), 'utf8');
  expect(file).toContain('Piers Venn,yyy');
  await page.goto(`${world.url}/jobs/${job}/bring`);
  await choose(page, 'mended.csv', file.replace(/y{100,}/, 'piers@a.example'));
  await press(page, /Bring in 1 row/);
  await page.waitForURL(`**/jobs/${job}`);
  expect((await world.sourcesOf(job)).map(({ rows, unread }) => [rows, unread])).toEqual([
    [2, 0],
    [1, 0],
  ]);
});

test('a list of names finds its profiles: the clear one by itself, the doubtful one with a key, who is not there again', async ({
  page,
}) => {
  const job = await world.newJob('Names');
  const search = {
    about: 'people',
    conditions: [{ field: 'city', not: false, terms: [{ text: 'Boyle', exact: true }] }],
  };
  const { rows } = await world.call<{ rows: { name: string; company: string; link: string }[] }>(
    'POST',
    '/api/directory/page',
    { search, page: 1 },
  );
  const plain = rows.filter(({ name }) => /^[A-Z][a-z]+ [A-Z][a-z]+$/.test(name));
  const [clear, doubtful] = plain;
  await page.goto(`${world.url}/jobs/${job}/bring`);
  const lines = [`${clear!.name},${clear!.company},`, `${doubtful!.name},,Boyle`, 'Maren Zzyzx,Nowhere Dairy,'];
  await choose(page, 'names.csv', ['Name,Company,Town', ...lines].join('\n'));
  await page.getByLabel('Then find their profiles in Waymark').focus();
  await page.keyboard.press('Space');
  await press(page, 'Bring in 3 rows');
  await page.waitForURL(`**/jobs/${job}?step=profile`);

  await press(page, /^Find profiles 3$/);
  await page.keyboard.press('2');
  // The directory is asked some dozen times, each time through 40,000 people.
  await page.getByRole('tab', { name: 'Want a look 1' }).waitFor({ timeout: 60_000 });
  await page.keyboard.press('3');
  await expect(page.locator('cs-rows-grid').getByText(doubtful!.name.split(' ')[1]!)).toBeVisible();
  await page.keyboard.press('j');
  await expect(page.getByText(/One profile could be theirs|Which profile is theirs/)).toBeVisible();
  await page.keyboard.press('1');
  await expect(page.getByRole('tab', { name: 'Pass 2' })).toBeVisible({ timeout: 20_000 });
  await page.keyboard.press('1');
  await expect(page.locator('cs-rows-grid').getByText(clear!.link.replace(/^https:\/\/www\.|\/$/g, ''))).toBeVisible();

  await press(page, 'Try 1 again at other companies');
  await expect(page.getByRole('button', { name: 'Try 1 again at other companies' })).toBeHidden({ timeout: 20_000 });
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: 'Try 1 again at other companies' })).toBeVisible({ timeout: 20_000 });
});
