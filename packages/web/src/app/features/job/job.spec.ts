import { TestBed } from '@angular/core/testing';
import { MatDialog } from '@angular/material/dialog';
import { Router } from '@angular/router';
import { Handover } from '../../state/handover';
import { drawn, haveJobs, sampleJob, webHarness } from '../../testing/web-harness';
import { JobScreen } from './job';

jest.mock('./rows-grid', () => jest.requireActual<object>('../../testing/rows-grid-stub'));

async function open(inputs: Record<string, unknown> = {}, jobs = [sampleJob()]) {
  const { http } = webHarness();
  haveJobs(jobs);
  const went = jest.spyOn(TestBed.inject(Router), 'navigate').mockResolvedValue(true);
  const screen = await drawn(JobScreen, { id: '2', ...inputs });
  const query = () => went.mock.calls.at(-1)?.[1]?.queryParams;
  const press = (key: string, more: KeyboardEventInit = {}, target: EventTarget = document.body) => {
    const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more });
    target.dispatchEvent(event);
    return event.defaultPrevented;
  };
  return { ...screen, http, went, query, press };
}
const words = (element: HTMLElement) =>
  [...element.querySelectorAll('[role=tab]')].map(({ textContent }) => textContent.trim());

it('the address chooses step and fate; what it cannot be is the usual one', async () => {
  const { element, text } = await open({ step: 'screen', fate: 'look' });
  expect(text()).toContain('1,935 came in. 1,200 pass, 544 are set aside, 191 want a look.');
  expect(words(element)).toEqual(['Pass 1,200', 'Set aside 544', 'Want a look 191']);
  expect(element.querySelector('[aria-selected=true]')!.textContent).toContain('Want a look');
  TestBed.resetTestingModule();
  const odd = await open({ step: 'nonsense', fate: 'nonsense' });
  expect(odd.element.querySelector('[aria-selected=true]')!.textContent).toContain('Pass');
});

it('steps that ask have rows that wait, others want a look', async () => {
  expect(words((await open({ step: 'verify' })).element)).toEqual(['Pass 425', 'Set aside 600', 'Wait to be asked 75']);
  TestBed.resetTestingModule();
  expect(words((await open({ step: 'tidy' })).element)).toEqual(['Pass 1,935', 'Set aside 6']);
});

it('keys choose fates and filter; X and R are told to whoever has a row', async () => {
  const { press, query, http } = await open({ row: '7' });
  press('2');
  expect(query()).toEqual({ fate: 'aside', why: null, row: null, full: null });
  press('3');
  expect(query()).toEqual({ fate: 'look', why: null, row: null, full: null });
  press('/');
  expect(document.activeElement?.getAttribute('aria-label')).toBe('Filter the rows');
  press('x');
  const aside = http.expectOne('/api/jobs/2/decisions');
  expect(aside.request.body).toEqual({ body: { kind: 'set-aside', recordIds: [7] } });
  aside.flush({ id: 1, body: { kind: 'set-aside', recordIds: [7] } });
  press('r');
  expect(http.expectOne('/api/jobs/2/decisions').request.body).toEqual({
    body: { kind: 'keep', recordIds: [7], step: 'screen' },
  });
});

it('without a row X says to choose one, and nothing is decided', async () => {
  const { press, http } = await open();
  press('x');
  http.expectNone('/api/jobs/2/decisions');
  expect(document.body.textContent).toContain('Choose a row first');
});

it('Ctrl Z takes the last decision back and says which', async () => {
  const { press, http } = await open();
  expect(press('z', { ctrlKey: true })).toBe(true);
  const row = { id: 9, author: 'you', undoneAt: null, body: { kind: 'set-aside', recordIds: [7] } };
  http.expectOne('/api/decisions?subject=job&subjectId=2').flush([row]);
  http.expectOne('/api/decisions/9').flush({});
  expect(document.body.textContent).toContain('Taken back');
});

it('keys are left alone while somebody types or a dialog is open', async () => {
  const { element, press, http, went, fixture } = await open({ row: '7' });
  const box = element.querySelector<HTMLInputElement>('[aria-label="Filter the rows"]')!;
  expect(press('x', {}, box)).toBe(false);
  expect(press('2', {}, box)).toBe(false);
  const dialogs = fixture.debugElement.injector.get(MatDialog);
  jest.spyOn(dialogs, 'openDialogs', 'get').mockReturnValue([{} as never]);
  expect(press('x')).toBe(false);
  http.expectNone('/api/jobs/2/decisions');
  expect(went).not.toHaveBeenCalled();
});

it('what is dropped or pasted goes to Bring in, into this job; one word is no table', async () => {
  const { element, went } = await open();
  const files = () => TestBed.inject(Handover).files();
  const drop = Object.assign(new Event('drop', { bubbles: true, cancelable: true }), {
    dataTransfer: { types: ['Files'], files: [new File(['a'], 'list.csv')] },
  });
  element.dispatchEvent(drop);
  expect([files()[0]!.name, went.mock.calls.at(-1)![0]]).toEqual(['list.csv', ['/jobs', 2, 'bring']]);
  const paste = (text: string) =>
    document.dispatchEvent(
      Object.assign(new Event('paste', { bubbles: true }), { clipboardData: { getData: () => text } }),
    );
  went.mockClear();
  paste('hello');
  expect(went).not.toHaveBeenCalled();
  paste('Name\tEmail\nMaren\tm@tidewell.example');
  expect(went).toHaveBeenCalledWith(['/jobs', 2, 'bring']);
});

it('a job without rows says how they come in; a number without a job says so', async () => {
  const { summary } = sampleJob();
  const empty = await open({}, [sampleJob({ summary: { ...summary!, records: 0 } })]);
  expect(empty.text()).toContain('Drop a file anywhere on this page');
  TestBed.resetTestingModule();
  expect((await open({ id: '99' })).text()).toContain('There is no such job');
});

it('Enter reads the chosen row in full, not where it presses a button; what is copied is what the grid shows', async () => {
  const { press, query, went, fixture, element } = await open({ row: '7' });
  press('Enter', {}, element.querySelector('button')!);
  expect(went).not.toHaveBeenCalled();
  press('Enter');
  expect(query()).toEqual({ row: 7, full: 1 });
  const grid = fixture.debugElement.query(({ name }) => name === 'cs-rows-grid').componentInstance as {
    rows: string[][];
  };
  const copied: string[] = [];
  const copy = () =>
    document.dispatchEvent(
      Object.assign(new Event('copy', { bubbles: true, cancelable: true }), {
        clipboardData: { setData: (_: string, text: string) => copied.push(text) },
      }),
    );
  copy();
  grid.rows = [
    ['Name', 'Place'],
    ['Maren Oakhill', 'Wells,\tSomerset'],
  ];
  copy();
  expect(copied).toEqual(['Name\tPlace\nMaren Oakhill\tWells, Somerset']);
});

it('X means the person who is read in full, whatever is marked beneath', async () => {
  const { press, http, fixture, stable } = await open({ row: '7' });
  const grid = fixture.debugElement.query(({ name }) => name === 'cs-rows-grid').componentInstance as {
    marked: { emit: (rows: object[]) => void };
  };
  grid.marked.emit([{ id: 21 }, { id: 22 }]);
  await stable();
  const asked = () => http.match('/api/jobs/2/decisions').map(({ request }) => request.body as object);
  press('x');
  expect(asked()).toEqual([{ body: { kind: 'set-aside', recordIds: [21, 22] } }]);
  fixture.componentRef.setInput('full', '1');
  await stable();
  press('x');
  expect(asked()).toEqual([{ body: { kind: 'set-aside', recordIds: [7] } }]);
});
