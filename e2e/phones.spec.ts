import { expect, test } from '@playwright/test';
import { pick, sent, startWorld, type World } from './world';

let world: World;
test.beforeAll(async () => (world = await startWorld(4720)));
test.afterAll(() => world.stop());

test('phones in three passes through services of which one is down; who is not to be called is not; the ledger adds up', async ({
  page,
}) => {
  const job = await world.newJob('Judges');
  await world.call('PATCH', `/api/jobs/${job}`, { budgetCents: 1500 });
  await world.bring(job, 'contest-judges.csv');
  for (const id of ['append-email', 'verify']) await world.setUp(job, id, {}, false);
  await world.idle();
  await world.scenario({ phonesDown: ['switchyard'] });

  await page.goto(`${world.url}/jobs/${job}?step=append-phone`);
  await page.getByRole('button', { name: 'Set up' }).click();
  const form = page.getByRole('dialog');
  await form.getByLabel('Look for phones that are lacking').check();
  for (const name of ['Doorchime', 'Bellpull', 'Switchyard'])
    await form.getByRole('button', { name: `Ask ${name} too` }).click();
  // By keyboard: the dear one is asked first.
  const handle = form.getByRole('button', { name: /^Switchyard, place 3 of 3/ });
  await handle.focus();
  await page.keyboard.press('Alt+ArrowUp');
  await page.keyboard.press('Alt+ArrowUp');
  await expect(form.getByRole('button', { name: /^Switchyard, place 1 of 3/ })).toBeFocused();
  await sent(page, '/steps', () => form.getByRole('button', { name: 'Use' }).click());
  await world.idle();

  const lookUp = page.getByRole('button', { name: /Look up \d+, at most/ });
  await lookUp.click();
  // It is said at the end of the run, which takes 20 seconds alone: a service that is down is asked four times before it counts as such.
  await expect(page.getByText('Switchyard: it answered 503').first()).toBeVisible({ timeout: 120_000 });
  await world.scenario({ phonesDown: [] });
  await world.setUp(job, 'append-phone', { services: ['doorchime', 'bellpull'] });
  await world.idle();
  await lookUp.click();
  await expect(page.getByRole('button', { name: /Look up/ })).toHaveCount(0);
  await world.idle();
  await page.getByRole('tab', { name: /Pass/ }).click();
  for (const words of ['by full name and address', 'by last name and address', 'by an earlier address'])
    await expect(page.getByText(words).first()).toBeVisible();

  // What the services say they have charged is what the ledger says.
  const charged = async (id: string) => (await world.bill(`phones/${id}`)).cents;
  const { spentCents } = await world.call<{ spentCents: number }>('GET', `/api/jobs/${job}`);
  expect(spentCents).toBe((await charged('doorchime')) + (await charged('bellpull')));
  expect(spentCents).toBeGreaterThan(0);

  // One of them asks not to be called: the number is gone, the person is not.
  const listed = async () =>
    (
      await world.call<{ rows: { name: string; phone: string }[] }>(
        'GET',
        `/api/jobs/${job}/rows?step=append-phone&limit=500`,
      )
    ).rows;
  const rows = await listed();
  const one = rows.find(({ phone }) => phone !== '')!;
  await page.goto(`${world.url}/settings?part=suppression`);
  await pick(page, 'Why', 'not to be called');
  await page.getByLabel('Who to suppress, one a line').fill(one.phone);
  await sent(page, '/suppressions', () => page.getByRole('button', { name: 'Suppress', exact: true }).click());
  await world.idle();
  const after = await listed();
  expect(after).toHaveLength(rows.length);
  expect(after.find(({ name }) => name === one.name)!.phone).not.toBe(one.phone);
});
