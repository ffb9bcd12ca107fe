import type { DecisionRow } from '@sieve/contract';
import { drawn, inDialog, webHarness } from '../../testing/web-harness';
import { DecisionList } from './decision-list';

const about = { subject: 'job', subjectId: 2, author: 'you', at: 0 } as const;
const rows: DecisionRow[] = [
  { ...about, id: 3, body: { kind: 'set-aside', recordIds: [1, 2] }, undoneAt: null },
  { ...about, id: 1, body: { kind: 'bring-in', sourceId: 1, name: 'list.csv' }, undoneAt: 5 },
];

async function open(found: DecisionRow[]) {
  const { http } = webHarness(inDialog(2));
  const list = await drawn(DecisionList);
  http.expectOne('/api/decisions?subject=job&subjectId=2').flush(found);
  await list.stable();
  return { ...list, http };
}

it('every decision is in words, and is taken back or made to stand again', async () => {
  const { element, button, http } = await open(rows);
  const words = [...element.querySelectorAll('li span')].map(({ textContent }) => textContent);
  expect(words).toEqual([expect.stringContaining('2'), expect.stringContaining('list.csv')]);
  expect(element.querySelectorAll('.undone')).toHaveLength(1);
  button('take back').click();
  const back = http.expectOne({ method: 'POST', url: '/api/decisions/3' });
  expect(back.request.body).toEqual({ undone: true });
  back.flush({});
  http.expectOne('/api/decisions?subject=job&subjectId=2').flush(rows);
  button('let it stand').click();
  expect(http.expectOne({ method: 'POST', url: '/api/decisions/1' }).request.body).toEqual({ undone: false });
});

it('says when nothing was decided', async () => {
  expect((await open([])).text()).toContain('Nothing was decided yet.');
});
