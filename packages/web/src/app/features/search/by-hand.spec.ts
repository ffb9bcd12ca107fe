import { TestBed } from '@angular/core/testing';
import { parseSearch } from '@sieve/core/search/parse';
import { drawn, webHarness } from '../../testing/web-harness';
import { ByHand } from './by-hand';
import { SearchStore } from './search-store';

async function open(lines: string) {
  const { http } = webHarness([SearchStore]);
  TestBed.inject(SearchStore).load(4);
  http
    .expectOne('/api/searches/4')
    .flush({ id: 4, search: parseSearch('title: technical').search, batches: 1, batchViews: [], pulls: [] });
  const view = await drawn(ByHand, { lines });
  const done = jest.fn();
  view.fixture.componentInstance.done.subscribe(done);
  const type = async (text: string) => {
    const area = view.element.querySelector('textarea')!;
    area.value = text;
    area.dispatchEvent(new Event('input'));
    await view.stable();
  };
  return { ...view, http, done, type };
}

it('sends rows of a sheet with the cells that are kept, and is done once they are counted', async () => {
  const { http, done, type, text, element, button, stable } = await open('title: technical');
  expect(text()).not.toContain('Searches are in');
  await type('Region\tSearch\nSouth\tpeople where team: sales\nNorth\tpeople where team: quality');
  expect(text()).toContain('Searches are in');
  element.querySelector<HTMLInputElement>('input[type=checkbox]')!.click();
  await stable();
  button('Use these batches').click();
  const asked = http.expectOne('/api/searches/4/batches');
  const kept = (asked.request.body as { batches: { kept: object }[] }).batches.map((batch) => batch.kept);
  expect(kept).toEqual([{ Region: 'South' }, { Region: 'North' }]);
  expect(done).not.toHaveBeenCalled();
  asked.flush({ id: 4, search: parseSearch('title: technical').search, batches: 2, batchViews: [], pulls: [] });
  expect(done).toHaveBeenCalledTimes(1);
});

it('says what cannot be read and sends nothing; an empty sheet cannot be used', async () => {
  const { http, type, text, button, stable } = await open('title: technical');
  await type('team: cheese');
  button('Use these batches').click();
  await stable();
  expect(text()).toContain('Line 1: “cheese” is not one of the values');
  http.expectNone('/api/searches/4/batches');
  await type('  \n');
  expect(button('Use these batches').disabled).toBe(true);
});
