import type { HarvestView, WebPage } from '@sieve/contract';
import { stopRules } from '@sieve/core/harvest/stop-rules';
import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { drawn, haveJobs, sampleJob, sampleRun, webHarness } from '../../testing/web-harness';
import { Store } from '@ngrx/store';
import { workActions } from '../../state/work';
import { Harvest } from './harvest';

const field = (key: string, name: string, target: WebPage['sets'][number]['fields'][number]['target'], filled = 3) => ({
  key,
  name,
  target,
  filled,
  lengths: [9, 8, 0],
});
const page: WebPage = {
  address: 'https://guild.example/members',
  title: 'Members of the guild',
  bytes: 41_000,
  sets: [
    {
      count: 3,
      heading: 'Members',
      path: ['body', 'main', 'article.member'],
      identity: '@link',
      fields: [
        field('name', 'Full name', 'fullName'),
        field('stock', 'Stock', 'own'),
        field('@link', 'Profile link', 'profile'),
        field('rest', 'Other', 'own', 0),
      ],
      rows: [
        ['Maren Oakhill', '12', 'https://guild.example/m/1', ''],
        ['Piers Venn', '', 'https://guild.example/m/2', ''],
        ['Rhona Holm', '3', 'https://guild.example/m/3', ''],
      ],
    },
    {
      count: 8,
      heading: '',
      path: ['body', 'aside', 'li'],
      identity: '',
      fields: [field('li', 'Text', 'own', 8)],
      rows: [['Ashlar Vats']],
    },
  ],
  next: [
    { address: 'https://guild.example/members?p=2', text: 'Next ›', signs: ['rel', 'word'], sure: 0.99 },
    { address: 'https://guild.example/old', text: 'older', signs: ['word'], sure: 0.9 },
  ],
  followed: 'https://guild.example/members?p=2',
  remembered: null,
};
const visited = (number: number, change: Partial<HarvestView['pages'][number]> = {}): HarvestView['pages'][number] => ({
  number,
  address: `https://guild.example/members?p=${number}`,
  state: 'read',
  rows: 24,
  fresh: 24,
  yours: 4,
  left: 0,
  lowest: 40 - number * 4,
  upload: '',
  ms: 800,
  at: 1,
  ...change,
});
const going = (change: Partial<HarvestView> = {}): HarvestView => ({
  id: 7,
  jobId: 2,
  sourceId: 9,
  runId: 5,
  name: 'Members',
  address: page.address,
  upload: 'up-1',
  set: {
    path: page.sets[0]!.path,
    keys: ['name', 'stock'],
    columns: [
      { name: 'Full name', target: 'fullName' },
      { name: 'Stock', target: 'own' },
    ],
  },
  next: { by: 'found' },
  stop: stopRules.parse({ column: { field: 1, turns: 'blank or zero' } }),
  watched: 'Stock',
  seconds: 3,
  siteSeconds: 0,
  everyDays: null,
  nextAt: null,
  number: 4,
  end: null,
  rows: 48,
  yours: 8,
  likelyPages: 10,
  latest: [['Carys Nesbitt', '28']],
  pages: [visited(1), visited(2), visited(3, { state: 'changed', rows: 0, fresh: 0, lowest: null, upload: 'up-3' })],
  ...change,
});

async function open(
  inputs: Record<string, unknown> = { id: '2', upload: 'up-1', name: 'guild.example', address: page.address },
) {
  const { http } = webHarness();
  haveJobs([sampleJob()]);
  const screen = await drawn(Harvest, inputs);
  const settled = async () => {
    await new Promise((resolve) => setTimeout(resolve));
    await screen.stable();
  };
  const answer = async (seen: WebPage = page) => {
    http.expectOne((request) => request.url === '/api/uploads/up-1/page').flush(seen);
    await settled();
    http.expectOne('/api/pages/robots').flush({ allows: true, seconds: 5, found: true });
    await settled();
  };
  return { ...screen, http, settled, answer };
}

describe('a page', () => {
  it('shows its sets, what its site allows and where it leads; what is chosen is what is harvested', async () => {
    const { http, answer, settled, text, element, write, pick, button } = await open();
    await answer();
    expect(text()).toContain('Next link found, sure');
    expect(text()).toContain('the site asks for 5 s; that is kept');
    expect(element.querySelector('iframe')!.getAttribute('sandbox')).toBe('');
    expect(element.querySelector('iframe')!.src).toContain('/api/uploads/up-1/preview?set=0');
    document.dispatchEvent(new KeyboardEvent('keydown', { key: 'j' }));
    await settled();
    expect(text()).toContain('8 rows on this page');
    document.dispatchEvent(new KeyboardEvent('keydown', { key: 'k' }));
    await settled();
    button('Leave out Profile link').click();
    await settled();
    expect(text()).toContain('1 left out: Profile link');
    await pick('Watched column', 'Stock');
    const heading = element.querySelector<HTMLInputElement>('input[aria-label^="Heading of Stock"]')!;
    heading.value = 'Wheels';
    heading.dispatchEvent(new Event('change'));
    await settled();
    element
      .querySelector('input[aria-label^="Heading of Wheels"]')!
      .dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowLeft', altKey: true, bubbles: true }));
    await write('input[aria-label="Pages at most"]', '12');
    element.querySelector('input[aria-label="Pages at most"]')!.dispatchEvent(new Event('change'));
    await settled();
    button(/Harvest the pages/).click();
    const asked = http.expectOne('/api/jobs/2/harvests').request;
    expect(asked.body).toMatchObject({
      uploadId: 'up-1',
      address: page.address,
      set: { identity: '@link' },
      columns: [
        { name: 'Wheels', target: 'own' },
        { name: 'Full name', target: 'fullName' },
        { name: 'Profile link', target: 'skip' },
        { name: 'Other', target: 'skip' },
      ],
      next: { by: 'found' },
      stop: { pages: 12, column: { field: 0, turns: 'blank or zero' } },
    });
  });

  it('follows the link that a person chose, or none', async () => {
    const { http, answer, settled, text, pick, button } = await open();
    await answer();
    expect(await pick('The next page is', '“older” to /old')).toContain('only this page');
    await settled();
    expect(text()).toContain('Next link found, sure');
    await pick('The next page is', 'only this page');
    await settled();
    button(/Bring in this page/).click();
    expect((http.expectOne('/api/jobs/2/harvests').request.body as { next: object }).next).toEqual({ by: 'none' });
  });

  it('goes on to show a harvest: rows, pages, what was not read, and asks for it again as its run moves', async () => {
    const { http, answer, settled, text, element, button } = await open({ id: '2', harvest: '7' });
    http.expectOne('/api/harvests/7').flush(going());
    await settled();
    await answer();
    expect(text()).toContain('48 rows so far');
    expect(text()).toContain('40 new to you');
    expect(text()).toContain('Carys Nesbitt');
    const look = element.querySelector<HTMLAnchorElement>('a.look')!;
    expect(look.getAttribute('href')).toContain('upload=up-3');
    const store = TestBed.inject(Store) as unknown as { dispatch: (action: object) => void };
    const run = sampleRun(5, 'running', { input: { kind: 'harvest', harvestId: 7 }, done: 4 });
    store.dispatch(workActions.runMoved({ run }));
    await settled();
    http
      .match('/api/harvests/7')
      .at(-1)!
      .flush(going({ number: 5, rows: 72 }));
    await settled();
    expect(text()).toContain('72 rows so far');
    // While nobody answers, what is known stays; and it is asked again as the run moves on.
    store.dispatch(workActions.runMoved({ run: { ...run, done: 5 } }));
    await settled();
    http.match('/api/harvests/7').at(-1)!.error(new ProgressEvent('error'));
    await settled();
    expect(text()).toContain('72 rows so far');
    store.dispatch(workActions.runMoved({ run: { ...run, done: 6 } }));
    await settled();
    http
      .match('/api/harvests/7')
      .at(-1)!
      .flush(going({ number: 7, rows: 96 }));
    await settled();
    button(/Stop, keep 96/).click();
    expect(http.expectOne('/api/runs/5').request.body).toEqual({ action: 'cancel' });
  });

  it('follows nothing that is not sure, and says so', async () => {
    const { text, settled, answer, pick } = await open();
    const next: WebPage['next'] = [
      { address: 'https://guild.example/l?start=25', text: '26 to 50', signs: ['offset'], sure: 0.55 },
    ];
    await answer({ ...page, next, followed: '' });
    expect(text()).toContain('none is followed until you choose it');
    expect(text()).toContain('Bring in this page');
    await pick('The next page is', '“26 to 50” to /l?start=25');
    await settled();
    expect(text()).toContain('Next link found, likely');
    expect(text()).toContain('Harvest the pages');
  });

  it('says what is wrong with a page, and that nothing was chosen', async () => {
    const { http, settled, text } = await open();
    http
      .expectOne((request) => request.url === '/api/uploads/up-1/page')
      .flush({ message: 'It holds nothing that repeats.' }, { status: 422, statusText: 'Unprocessable' });
    await settled();
    expect(text()).toContain('It holds nothing that repeats.');
    TestBed.resetTestingModule();
    const empty = await open({ id: '2' });
    expect(empty.text()).toContain('No page was chosen');
    expect(TestBed.inject(Router).url).toBe('/');
  });
});
