import type { FirmPage, FirmRow, FirmView } from '@sieve/contract';
import { defaultSieve } from '@sieve/core/steps/sieve';
import { drawn, sampleJob, webHarness } from '../../../../testing/web-harness';
import { FirmPairsList } from './firm-pairs';
import { Firms } from './firms';

const row = (key: string, more: Partial<FirmRow> = {}): FirmRow => ({
  key,
  name: key.split('.')[0]!,
  domain: key,
  sector: '',
  headcount: '',
  place: 'Wells, GB',
  came: 2,
  pass: 2,
  state: 'pass',
  code: 'passed',
  why: {},
  answer: 'yes',
  yes: 0.9,
  by: 'words',
  ...more,
});
const page: FirmPage = {
  total: 2,
  rows: [
    row('brackenfold.example'),
    row('tidewell.example', { answer: 'no', state: 'aside', code: 'website-says-no' }),
  ],
  states: { pass: 1, aside: 1, look: 0, waits: 0 },
  answers: { yes: 1, no: 1, unclear: 0 },
  taught: { yes: 1, no: 0 },
};
const view: FirmView = {
  ...page.rows[0]!,
  site: {
    state: 'read',
    askedAt: 0,
    pages: [{ path: '/', title: '', lines: 3 }],
    speaking: [{ path: '/', line: 2, text: 'We make cheese here.', speaks: 'for', word: 'make cheese' }],
  },
  bought: null,
  topics: null,
  twins: [{ key: 'bracken-fold.example', name: 'Bracken Fold', domain: '', place: '', chance: 0.6 }],
  joined: [],
  sites: [{ key: 'domain cork.example', name: 'Brackenfold Cork', place: 'Cork', came: 2 }],
  spellings: [
    { name: 'Brackenfold', people: 3 },
    { name: 'BRACKENFOLD', people: 1 },
  ],
  recordIds: [7, 8],
  contactIds: [7],
  people: [{ id: 7, name: 'Maren Oakhill', title: 'Owner', state: 'pass', verdict: '' }],
};

beforeAll(() => (Element.prototype.scrollIntoView = () => undefined));

it('companies say what their websites answer and by which sentence; keys answer, set aside, and say whether two are one', async () => {
  const { http } = webHarness();
  const step = defaultSieve().find(({ kind }) => kind === 'company')!;
  const job = sampleJob();
  const asked = { ...step, on: true, options: { ...step.options, question: 'Do they make cheese here?' } };
  const { text, element, stable } = await drawn(Firms, { job, step: asked });
  http.expectOne(({ url }) => url === `/api/jobs/${job.id}/firms`).flush(page);
  await stable();
  expect(text()).toContain('1 answer of yours teaches it; from 12 on');
  expect([...element.querySelectorAll('cs-answer-mark')].map(({ textContent }) => textContent.trim())).toEqual(
    expect.arrayContaining(['yes', 'no']),
  );
  const press = async (key: string) => {
    document.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
    await stable();
  };
  await press('j');
  http.expectOne(({ url }) => url === `/api/jobs/${job.id}/firm`).flush(view);
  await stable();
  expect(element.querySelector('blockquote mark')!.textContent).toBe('make cheese');
  expect(text()).toContain('Brackenfold Cork');
  const said = () =>
    (http.expectOne({ method: 'POST', url: `/api/jobs/${job.id}/decisions` }).request.body as { body: object }).body;
  const decided = async (key: string) => {
    await press(key);
    return said();
  };
  const buttons = [...element.querySelectorAll<HTMLElement>('cs-firm button')];
  buttons.find(({ textContent }) => textContent.includes('write so for all'))!.click();
  expect(said()).toEqual({ kind: 'edit', field: 'company', value: 'Brackenfold', recordIds: [7, 8] });
  expect(await decided('s')).toEqual({
    kind: 'companies',
    a: 'brackenfold.example',
    b: 'bracken-fold.example',
    same: true,
  });
  expect(await decided('n')).toMatchObject({ kind: 'site-answer', domain: 'brackenfold.example', answer: 'no' });
});

it('pairs of companies are judged with a key each', async () => {
  const { http } = webHarness();
  const side = (key: string) => ({ key, name: key.split('.')[0]!, domain: key, place: 'Wells, GB', people: 2 });
  const { text, stable, element } = await drawn(FirmPairsList, { jobId: 1, step: 'company', version: 1 });
  http
    .expectOne(({ url }) => url === '/api/jobs/1/firm-pairs')
    .flush({
      total: 2,
      pairs: [
        { chance: 0.52, a: side('brackenfold.example'), b: side('bracken-fold.example') },
        { chance: 0.41, a: side('tidewell.example'), b: side('tide-well.example') },
      ],
    });
  await stable();
  expect(text()).toContain('2 pairs of companies may be one');
  document.dispatchEvent(new KeyboardEvent('keydown', { key: 'j' }));
  document.dispatchEvent(new KeyboardEvent('keydown', { key: 'd' }));
  await stable();
  expect(text()).toContain('1 pair of companies');
  expect(element.querySelector('tbody')!.textContent).not.toContain('tidewell');
});
