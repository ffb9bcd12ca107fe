import { drawn, inDialog, webHarness } from '../../testing/web-harness';
import { PickDialog } from './pick-dialog';

const body = {
  search: { about: 'people' as const, conditions: [] },
  page: 2,
  ids: ['people-7'] as string[] | null,
  most: 0,
};

async function open(given = body) {
  const closed = jest.fn();
  const { http } = webHarness(inDialog({ about: 'people', body: given }, closed));
  const dialog = await drawn(PickDialog);
  http.expectOne('/api/pick-lists').flush([
    { id: 1, name: 'Good ones', about: 'people', createdAt: 0, picks: 41 },
    { id: 2, name: 'Firms', about: 'companies', createdAt: 0, picks: 9 },
  ]);
  await dialog.stable();
  return { ...dialog, http, closed };
}

it('offers the lists of this kind, and says what was added', async () => {
  const { element, button, http, closed } = await open();
  expect([...element.querySelectorAll('.list b')].map(({ textContent }) => textContent)).toEqual(['Good ones']);
  button(/Good ones/).click();
  const asked = http.expectOne('/api/pick-lists/1/picks');
  expect(asked.request.body).toEqual(body);
  asked.flush({ added: 1, picks: 42 });
  expect(document.body.textContent).toContain('1 picked; Good ones has 42');
  expect(closed).toHaveBeenCalledTimes(1);
});

it('takes as many of the result as are wanted, and no number that cannot be', async () => {
  const { write, button, http } = await open({ ...body, ids: null, most: 100 });
  for (const wrong of ['0', '2501', '1.5', '']) {
    await write('input.most', wrong);
    expect(button(/Good ones/).disabled).toBe(true);
  }
  await write('input.most', '40');
  button(/Good ones/).click();
  expect(http.expectOne('/api/pick-lists/1/picks').request.body).toMatchObject({ ids: null, most: 40 });
});

it('makes a new list and picks onto it; a list without a name is none', async () => {
  const { element, http } = await open();
  const form = element.querySelector('form')!;
  form.dispatchEvent(new Event('submit', { cancelable: true }));
  http.expectNone({ method: 'POST', url: '/api/pick-lists' });
  element.querySelector<HTMLInputElement>('.new input')!.value = ' Autumn ';
  form.dispatchEvent(new Event('submit', { cancelable: true }));
  const made = http.expectOne({ method: 'POST', url: '/api/pick-lists' });
  expect(made.request.body).toEqual({ name: 'Autumn', about: 'people' });
  made.flush({ id: 5, name: 'Autumn', about: 'people', createdAt: 0, picks: 0 });
  http.expectOne('/api/pick-lists/5/picks').flush({ added: 1, picks: 1 });
});

it('a directory that fails leaves the dialog open, to try again', async () => {
  const { button, http, closed, stable } = await open();
  button(/Good ones/).click();
  await stable();
  expect(button(/Good ones/).disabled).toBe(true);
  http
    .expectOne('/api/pick-lists/1/picks')
    .flush({ message: 'Waymark: it answered 500.' }, { status: 502, statusText: 'Bad Gateway' });
  await stable();
  expect([button(/Good ones/).disabled, closed.mock.calls.length]).toEqual([false, 0]);
});
