import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { drawn, haveJobs, inDialog, sampleJob, webHarness } from '../testing/web-harness';
import { Commands } from './commands';

async function open() {
  const close = jest.fn();
  const { http } = webHarness(inDialog(null, close));
  haveJobs([sampleJob(), sampleJob({ id: 5, name: 'Breweries', summary: null })]);
  const commands = await drawn(Commands);
  const went = jest.spyOn(TestBed.inject(Router), 'navigate').mockResolvedValue(true);
  const press = async (key: string) => {
    commands.element.querySelector('input')!.dispatchEvent(new KeyboardEvent('keydown', { key, cancelable: true }));
    await commands.stable();
  };
  const options = () =>
    [...commands.element.querySelectorAll('[role=option] span')].map(({ textContent }) => textContent);
  const chosen = () => commands.element.querySelector('[aria-selected=true] span')?.textContent;
  return { ...commands, http, close, went, press, options, chosen };
}

it('finds screens, actions and jobs by any of their words, in any order', async () => {
  const { write, options } = await open();
  expect(options()[0]).toBe('Desk');
  await write('input', 'cheese exp');
  expect(options()).toEqual(['Export: Cheese makers']);
  await write('input', 'BREW judge');
  expect(options()).toEqual(['Judge pairs: Breweries']);
});

it('finds contacts of the jobs that have rows, and leads to where they are', async () => {
  const { write, http, options, press, went, stable } = await open();
  await write('input', 'oakhill');
  await new Promise((resolve) => setTimeout(resolve, 200));
  const asked = http.expectOne((request) => request.url === '/api/found');
  expect(asked.request.urlWithParams).toContain('oakhill');
  asked.flush({
    contacts: [
      { jobId: 2, contact: 7, name: 'Maren Oakhill', company: 'Brackenfold', email: '', step: 'screen', fate: 'aside' },
    ],
    searches: [],
    pickLists: [],
    sources: [{ id: 3, jobId: 2, name: 'oakhill.csv' }],
  });
  await stable();
  expect(options()).toEqual(['oakhill.csv', 'Maren Oakhill, Brackenfold']);
  await press('ArrowDown');
  await press('Enter');
  expect(went).toHaveBeenCalledWith(['/jobs', 2], { queryParams: { step: 'screen', fate: 'aside', row: 7 } });
});

it('arrows choose within the list, Enter goes there and closes', async () => {
  const { press, chosen, went, close, write } = await open();
  await press('ArrowUp');
  expect(chosen()).toBe('Desk');
  await press('ArrowDown');
  await press('ArrowDown');
  expect(chosen()).toBe('New search');
  await press('Enter');
  expect([went.mock.calls[0]![0], close.mock.calls.length]).toEqual([['/search/new'], 1]);
  await write('input', 'zzzz');
  await press('Enter');
  expect(went).toHaveBeenCalledTimes(1);
});
