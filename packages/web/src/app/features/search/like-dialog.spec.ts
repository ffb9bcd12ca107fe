import type { LikeView } from '@sieve/contract';
import { parseSearch } from '@sieve/core/search/parse';
import { printSearch } from '@sieve/core/search/print';
import type { Search } from '@sieve/core';
import { drawn, inDialog, webHarness } from '../../testing/web-harness';
import { LikeDialog } from './like-dialog';

const like = (text: string, shared: number, count: number): LikeView => ({
  condition: parseSearch(`companies where ${text}`).search!.conditions[0]!,
  shared,
  of: 3,
  count,
});
const LIKES = [
  like('sector: Cheese making', 3, 410),
  like('country: IE', 3, 900),
  like('employees: 10..60', 2, 2100),
  like('growth: 1..20', 2, 1500),
];

async function open(likes: LikeView[] | null) {
  const closed = jest.fn<void, [Search?]>();
  const { http } = webHarness(inDialog({ about: 'companies', rows: [{}, {}, {}] }, closed));
  const dialog = await drawn(LikeDialog);
  const asked = http.expectOne('/api/directory/like');
  if (likes) asked.flush(likes);
  else asked.flush({ message: 'Waymark: it answered 500.' }, { status: 502, statusText: 'Bad Gateway' });
  await dialog.stable();
  return { ...dialog, http, closed };
}

it('what good rows share is offered with how many have it; the first three are chosen and counted together', async () => {
  const { element, http, stable, text } = await open(LIKES);
  const boxes = [...element.querySelectorAll<HTMLInputElement>('input')];
  expect(boxes.map(({ checked }) => checked)).toEqual([true, true, true, false]);
  expect(text()).toContain('3 of 3');
  const first = http.expectOne('/api/directory/count');
  boxes[2]!.click();
  await stable();
  const second = http.expectOne('/api/directory/count');
  expect(printSearch((second.request.body as { search: Search }).search)).toBe(
    'companies where sector: Cheese making; country: IE',
  );
  // The answer to what is no longer asked is not shown.
  second.flush({ count: 77, cap: 1000 });
  expect(first.cancelled).toBe(true);
  await stable();
  expect(text()).toContain('All that is chosen together: 77');
});

it('gives back the search that was put together; nothing chosen is no search', async () => {
  const { element, button, closed, stable } = await open(LIKES.slice(0, 1));
  button('Search').click();
  expect(printSearch(closed.mock.calls[0]![0]!)).toBe('companies where sector: Cheese making');
  element.querySelector<HTMLInputElement>('input')!.click();
  await stable();
  expect(button('Search').disabled).toBe(true);
});

it('says when they have nothing in common, and when the directory cannot be asked', async () => {
  expect((await open([])).text()).toContain('They have nothing in common that can be searched for.');
});

it('a directory that is down leaves nothing to choose', async () => {
  const { button, text } = await open(null);
  expect(text()).toContain('Waymark: it answered 500.');
  expect(button('Search').disabled).toBe(true);
});
