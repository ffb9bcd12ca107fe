import type { DecisionRow } from '@sieve/contract';
import { drawn, inDialog, webHarness } from '../../testing/web-harness';
import { DecisionList } from './decision-list';

const rows: DecisionRow[] = [
  { id: 3, at: 0, body: { kind: 'set-aside', recordIds: [1, 2] }, undone: false },
  { id: 1, at: 0, body: { kind: 'bring-in', sourceId: 1, name: 'list.csv' }, undone: true },
];

async function open(found: DecisionRow[]) {
  const { http } = webHarness(inDialog(2));
  const list = await drawn(DecisionList);
  http.expectOne('/api/jobs/2/decisions').flush(found);
  await list.stable();
  return { ...list, http };
}

it('every decision is in words, and is taken back or made to stand again', async () => {
  const { element, button, http } = await open(rows);
  const words = [...element.querySelectorAll('li span')].map(({ textContent }) => textContent);
  expect(words).toEqual([expect.stringContaining('2'), expect.stringContaining('list.csv')]);
  expect(element.querySelectorAll('.undone')).toHaveLength(1);
  button('take back').click();
  const back = http.expectOne({ method: 'POST', url: '/api/jobs/2/decisions/3' });
  expect(back.request.body).toEqual({ undone: true });
  back.flush({});
  http.expectOne('/api/jobs/2/decisions').flush(rows);
  button('let it stand').click();
  expect(http.expectOne({ method: 'POST', url: '/api/jobs/2/decisions/1' }).request.body).toEqual({ undone: false });
});

it('says when nothing was decided', async () => {
  expect((await open([])).text()).toContain('Nothing was decided yet.');
});
