import type { ContactRow, RowQuery } from '@sieve/contract';
import type { GridApi } from 'ag-grid-community';
import { of, Subject } from 'rxjs';
import { Api } from '../../api/api';
import { drawn, webHarness } from '../../testing/web-harness';
import { RowsGrid } from './rows-grid';
import { viewOf } from './steps/registry';

const row = (id: number): ContactRow =>
  ({
    id,
    name: `Person ${id}`,
    firstName: 'Person',
    lastName: String(id),
    title: 'Owner',
    company: `Firm ${id}`,
    place: 'Wells',
    email: `p${id}@firm.example`,
    phone: '',
    verdict: '',
    reason: '',
    source: 'list.csv',
    records: 1,
    fate: { step: null, state: 'pass', code: 'passed', why: {} },
  }) as unknown as ContactRow;

/** The grid says what happened in its own time. */
async function until(is: () => boolean) {
  while (!is()) await new Promise((resolve) => setTimeout(resolve, 5));
}

/** The grid over rows that can be changed behind its back. */
async function grid(ids: number[]) {
  const asked: Partial<RowQuery>[] = [];
  const rows = (_: number, query: Partial<RowQuery>) => {
    asked.push(query);
    const from = query.offset ?? 0;
    const place = query.placeOf === undefined ? null : ids.indexOf(query.placeOf);
    return of({ total: ids.length, rows: ids.slice(from, from + query.limit!).map(row), place });
  };
  webHarness([{ provide: Api, useValue: { rows } }]);
  const inputs = { jobId: 1, step: 'screen', view: viewOf('screen'), fate: 'pass', version: 1 };
  const screen = await drawn(RowsGrid, inputs);
  const instance = screen.fixture.componentInstance;
  /** Until the grid shows the rows as they are now, each where it stands. */
  const shown = async () => {
    const isShown = () => {
      const { grid: table } = instance as unknown as { grid?: GridApi<ContactRow> };
      return (
        table?.getDisplayedRowCount() === ids.length &&
        ids.every((id, i) => table.getDisplayedRowAtIndex(i)?.data?.id === id)
      );
    };
    await until(isShown);
    await screen.stable();
  };
  const set = async (values: Record<string, unknown>) => {
    for (const [name, value] of Object.entries(values)) screen.fixture.componentRef.setInput(name, value);
    await screen.stable();
    await shown();
  };
  let chosen = 0;
  instance.chosen.subscribe(({ id }) => (chosen = id));
  let marked: number[] = [];
  instance.marked.subscribe((all) => (marked = all.map(({ id }) => id)));
  await set({});
  return {
    asked,
    instance,
    set,
    /** Presses J or K, as the screen does: the row that is told becomes the current one. */
    move: async (by: 1 | -1) => {
      instance.move(by);
      await set({ current: chosen });
      return chosen;
    },
    marked: () => marked,
  };
}

it('a list opens where the current row stands, however far down', async () => {
  const asked: Partial<RowQuery>[] = [];
  const rows = (_: number, query: Partial<RowQuery>) => {
    asked.push(query);
    const ids = Array.from({ length: query.limit! }, (_row, i) => query.offset! + i);
    return of({ total: 100_000, rows: ids.map(row), place: query.placeOf ?? null });
  };
  webHarness([{ provide: Api, useValue: { rows } }]);
  const inputs = { jobId: 1, step: 'screen', view: viewOf('screen'), fate: 'pass', version: 1, current: 70_123 };
  const { fixture, stable } = await drawn(RowsGrid, inputs);
  await until(() => asked.some(({ offset }) => offset === 70_100));
  await stable();
  expect(asked.map(({ placeOf }) => placeOf)).toEqual([70_123, ...asked.slice(1).map(() => undefined)]);
  expect(fixture.componentInstance.position()).toEqual({ at: 70_124, of: 100_000 });
});

it('an answer about a list that was left says nothing of the one that is shown', async () => {
  const answers = new Map<string, Subject<unknown>>();
  const rows = (_: number, { q }: Partial<RowQuery>) => {
    answers.set(q!, new Subject());
    return answers.get(q!)!;
  };
  webHarness([{ provide: Api, useValue: { rows } }]);
  const inputs = { jobId: 1, step: 'screen', view: viewOf('screen'), fate: 'pass', query: 'wells' };
  const { fixture } = await drawn(RowsGrid, inputs);
  let found: number | undefined;
  fixture.componentInstance.total.subscribe((total) => (found = total));
  await until(() => answers.has('wells'));
  fixture.componentRef.setInput('query', 'wells nobody');
  await until(() => answers.has('wells nobody'));
  answers.get('wells nobody')!.next({ total: 0, rows: [], place: null });
  expect(found).toBe(0);
  answers.get('wells')!.next({ total: 3, rows: [1, 2, 3].map(row), place: null });
  expect(found).toBe(0);
});

it('J and K go from the row one sees, wherever it has moved to meanwhile', async () => {
  const ids = [1, 2, 3, 4, 5];
  const { move, set, instance } = await grid(ids);
  expect([await move(1), await move(1), await move(1)]).toEqual([1, 2, 3]);
  expect(instance.position()).toEqual({ at: 3, of: 5 });
  // Two rows came in above, by a pull.
  ids.unshift(8, 9);
  await set({ version: 2 });
  expect(instance.position()).toEqual({ at: 5, of: 7 });
  expect(await move(1)).toBe(4);
  expect(await move(-1)).toBe(3);
});

it('behind a row that has left comes the one that took its place; rows on their way out are passed over', async () => {
  const ids = [1, 2, 3, 4, 5];
  const { move, set, instance } = await grid(ids);
  await move(1);
  await move(1);
  ids.splice(1, 1);
  await set({ version: 2 });
  expect(instance.position()).toBeNull();
  expect(await move(1)).toBe(3);
  await set({ going: new Set([4]) });
  expect(await move(1)).toBe(5);
});

it('Space marks the current row, not the one the focus was left on; another list begins without marks', async () => {
  const ids = [1, 2, 3];
  const { move, set, instance, marked } = await grid(ids);
  await move(1);
  ids.unshift(7);
  await set({ version: 2 });
  instance.toggleMark();
  await until(() => marked().length > 0);
  expect(marked()).toEqual([1]);
  expect(instance.table()).toEqual([
    ['Name', 'Title', 'Company', 'Place', 'Source'],
    ['Person 1', 'Owner', 'Firm 1', 'Wells', 'list'],
  ]);
  await set({ fate: 'aside' });
  await until(() => marked().length === 0);
  expect(marked()).toEqual([]);
});
