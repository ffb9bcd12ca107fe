import { expect, test } from '@playwright/test';
import { pick, startWorld, type World } from './world';

let world: World;
test.beforeAll(async () => (world = await startWorld(4570)));
test.afterAll(() => world.stop());

const ROWS = `Name,Position,Company,Email,Phone,Country
Maren Oakhill,Owner,Brackenfold Dairy,maren@brackenfold.example,+44 20 7946 0018,GB
Idris Venn,Quality Manager,Brackenfold Dairy,idris@brackenfold.example,,GB
Nuala Farrow,Head of Quality,Tidewell Packaging,nuala@tidewell.example,+44 20 7946 0112,GB
Tobias Lind,Delivery Driver,Tidewell Packaging,tobias@tidewell.example,+44 20 7946 0113,GB
Piotr Redfern,Quality Manager,Sandholm Goats,piotr@sandholm.example,+44 20 7946 0200,GB
Carys Holm,Owner,Marlwood Cheese,carys@marlwood.example,+44 20 7946 0201,GB
`;

test('rules say what they take before they are used; their rows are looked at and undone; groups go with a key; the suppressed stay', async ({
  page,
}) => {
  const { id } = await world.call<{ id: number }>('POST', '/api/jobs', { name: 'Screened', targetValid: 40 });
  await world.bring(id, 'list.csv', Buffer.from(ROWS));
  await world.idle();
  await page.goto(`${world.url}/jobs/${id}?step=screen`);
  const tab = (name: RegExp) => page.getByRole('tab', { name });
  await expect(tab(/Pass 6/)).toBeVisible();

  await page.getByRole('button', { name: 'Edit rules' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'Rule', exact: true }).click();
  const sentence = (rule: number) => dialog.getByRole('group', { name: `Rule ${rule}`, exact: true });
  const caret = (rule: number) => sentence(rule).getByLabel('Add a condition');
  await caret(1).fill('title: driv*');
  await caret(1).press('Enter');
  await expect(sentence(1)).toContainText('whose title says driv*');
  await expect(dialog.locator('.takes')).toHaveText(['−1']);
  await dialog.getByRole('button', { name: 'Rule', exact: true }).click();
  await caret(2).pressSequentially('phone: ');
  await page.getByRole('option', { name: '(blank)' }).click();
  await expect(sentence(2)).toContainText('whose phone is blank');
  await expect(dialog.locator('.takes')).toHaveText(['−1', '−1']);
  await expect(dialog.getByText('6 come, 4 pass')).toBeVisible();
  await dialog.getByRole('button', { name: 'Use' }).click();
  await expect(tab(/Set aside 2/)).toBeVisible();

  await page.getByRole('button', { name: /Phone is blank/ }).click();
  await expect(page.locator('.ag-row')).toHaveCount(1);
  await page.locator('.ag-row').first().locator('.ag-cell').nth(1).click();
  await page.keyboard.press('r');
  await expect(tab(/Set aside 1/)).toBeVisible();
  await expect(page.getByText('No row is here for that reason any more.')).toBeVisible();
  await page.getByRole('button', { name: 'Show all' }).click();
  await expect(page.locator('.ag-row')).toHaveCount(1);

  await page.getByRole('button', { name: 'Groups' }).click();
  const groups = page.getByRole('listbox', { name: 'Titles' });
  await expect(groups.getByRole('option').first()).toContainText('2');
  // The keys are the list's once the dialog has given it the focus.
  await expect(groups).toBeFocused();
  for (let i = 0; i < 3; i++) await page.keyboard.press('g');
  const companies = page.getByRole('listbox', { name: 'Companies' });
  await expect(companies.getByRole('option').nth(1)).toContainText('Tidewell Packaging');
  await page.keyboard.press('j');
  await page.keyboard.press('x');
  await expect(companies.getByText('set aside by you')).toBeVisible();
  await page.getByRole('button', { name: 'Close' }).click();
  await expect(page.getByRole('button', { name: /Groups −2/ })).toBeVisible();

  await page.goto(`${world.url}/settings?part=suppression`);
  await page.getByLabel('A file of those to suppress').setInputFiles({
    name: 'asked.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('Name,Company\nCarys Holm,Marlwood Cheese\n'),
  });
  await page.getByRole('button', { name: 'Suppress them' }).click();
  await expect(page.getByRole('button', { name: /Remove Carys Holm/i })).toBeVisible();
  await page.goto(`${world.url}/jobs/${id}?step=screen&fate=aside&why=suppressed`);
  await expect(page.locator('.ag-row')).toContainText(['Carys Holm']);

  await page.getByRole('button', { name: /^Sources/ }).click();
  await expect(page.getByText('50 % fit')).toBeVisible();
});

test('whom another job may hold wants a look beside who is held there; who is held for sure goes as the rule says', async ({
  page,
}) => {
  const first = await world.newJob('Spring fair');
  await world.bring(
    first,
    'spring.csv',
    Buffer.from(
      'Name,Company,Email\nJude Pellow,,jude@hazelcote.example\nNuala Brook,Hazelcote Packaging,nuala@hazelcote.example\n',
    ),
  );
  await world.idle();
  const job = await world.newJob('Autumn fair');
  await world.bring(
    job,
    'autumn.csv',
    Buffer.from(
      'Name,Company,Email\nJude Pellow,,jude@hazelcote.example\nNuala Brook,Hazelcote,\nRhona Parry,Arranmor,\n',
    ),
  );
  await world.idle();
  await page.goto(`${world.url}/jobs/${job}?step=screen`);
  await page.getByRole('button', { name: 'Edit rules' }).click();
  await pick(page, 'Who is held in another job too', 'are set aside');
  await page.getByRole('dialog').getByRole('button', { name: 'Use' }).click();
  const tab = (name: RegExp) => page.getByRole('tab', { name });
  await expect(tab(/Set aside 1/)).toBeVisible();
  await tab(/Want a look 1/).click();
  await page.getByRole('gridcell', { name: 'Nuala Brook' }).click();
  await page.keyboard.press('Enter');
  const alike = page.locator('cs-alike-elsewhere');
  await expect(alike).toContainText('Spring fair');
  await expect(alike.getByRole('row', { name: /Company/ })).toContainText('Hazelcote Packaging');
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'Judge 1 pair' }).click();
  await expect(page.getByRole('heading', { name: 'Held in another job?' })).toBeVisible();
  await expect(page.getByRole('columnheader', { name: 'Spring fair' })).toBeVisible();
  await page.keyboard.press('s');
  await expect(page.getByRole('heading', { name: 'No pair waits for you' })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('heading', { name: 'Held in another job?' })).toBeVisible();
  await page.keyboard.press('s');
  await expect(page.getByRole('heading', { name: 'No pair waits for you' })).toBeVisible();
  await page.goto(`${world.url}/jobs/${job}?step=screen&fate=aside`);
  await expect(page.locator('.ag-row')).toHaveCount(2);
  await expect(tab(/Want a look 0/)).toBeVisible();
});
