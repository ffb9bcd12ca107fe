import { drawn, inDialog, webHarness } from '../testing/web-harness';
import { NewJobDialog } from './new-job';

async function open() {
  const close = jest.fn();
  const { http } = webHarness(inDialog(null, close));
  return { ...(await drawn(NewJobDialog)), http, close };
}

it('a job needs a name; money becomes cents', async () => {
  const { write, button, close, http } = await open();
  expect(button(/Create/).disabled).toBe(true);
  await write('[formcontrolname=name]', 'Cheese makers');
  await write('[formcontrolname=budget]', '19.99');
  await write('[formcontrolname=targetValid]', '600');
  expect(button(/Create/).disabled).toBe(false);
  button(/Create/).click();
  expect(http.expectOne({ method: 'POST', url: '/api/jobs' }).request.body).toMatchObject({
    name: 'Cheese makers',
    targetValid: 600,
    budgetCents: 1999,
  });
  expect(close).toHaveBeenCalledTimes(1);
});

it('no budget and no target can be below nothing', async () => {
  const { write, button } = await open();
  await write('[formcontrolname=name]', 'Cheese makers');
  await write('[formcontrolname=budget]', '-1');
  expect(button(/Create/).disabled).toBe(true);
});
