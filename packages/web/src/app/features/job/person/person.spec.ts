import type { PersonInFull } from '@sieve/contract';
import { emptyPerson } from '@sieve/core/model/person';
import { drawn, haveJobs, sampleJob, webHarness } from '../../../testing/web-harness';
import { PersonPane } from './person';

const person = {
  ...emptyPerson(),
  firstName: 'Hazel',
  lastName: 'Thorne',
  title: 'Cellar lead',
  email: 'h@tidewell.example',
};
const record = (id: number, source: string) => ({ id, source, line: 2, cells: [], person, changes: [], issues: [] });
const of = (recordId: number, source: string) => ({ kind: 'record', recordId, source, line: 2, at: 0 }) as const;
const full = {
  contact: {
    id: 7,
    name: 'Hazel Thorne',
    title: 'Cellar lead',
    company: '',
    email: person.email,
    verdict: 'valid',
    reason: 'accepted',
    fate: { step: 'screen', state: 'look', code: 'title-not-in-brief', why: {} },
    person,
    extra: {},
    recordIds: [7, 9],
    records: 2,
    recordViews: [record(7, 'guild.csv'), record(9, 'show.csv')],
    evidence: [{ a: 7, b: 9, chance: 0.9, evidence: [] }],
  },
  lines: [
    {
      fields: ['title'],
      values: [
        {
          parts: { title: 'Cellar lead' },
          stands: true,
          origins: [of(7, 'guild.csv')],
          changes: [{ field: 'title', was: 'CELLAR LEAD', is: 'Cellar lead', why: ['capitals'] }],
        },
        { parts: { title: 'Head of Quality' }, stands: false, origins: [of(9, 'show.csv')], changes: [] },
      ],
    },
    {
      fields: ['email'],
      values: [
        {
          parts: { email: person.email },
          stands: true,
          origins: [{ kind: 'finder', name: 'Lantern', cents: 15, at: 0 }],
          changes: [],
        },
      ],
    },
    { fields: ['note'], values: [] },
  ],
  verdict: { askedAt: Date.now() - 19 * 86_400_000, freshUntil: Date.now() + 71 * 86_400_000, by: 'Fernbank' },
  likely: [
    {
      jobId: 5,
      job: 'Spring fair',
      contact: 3,
      chance: 0.614,
      person: { ...person, email: '', firstName: 'Hazel Ann', company: 'Tidewell' },
    },
  ],
  jobs: [{ jobId: 2, contact: 7, fate: { step: 'screen', state: 'look', code: 'title-not-in-brief', why: {} } }],
  exports: [{ id: 3, jobId: 2, at: 0, files: ['cheese-1.csv', 'cheese-2.csv'] }],
} as unknown as PersonInFull;

async function open() {
  const { http } = webHarness();
  haveJobs([sampleJob()]);
  const pane = await drawn(PersonPane, { jobId: 2, contactId: 7, position: { at: 4, of: 192 } });
  http.expectOne('/api/jobs/2/people/7').flush(full);
  await pane.stable();
  http
    .match('/api/settings')
    .forEach((request) => request.flush({ version: 0, settings: { currency: 'GBP', finders: [] } }));
  await pane.stable();
  const decided: object[] = [];
  pane.fixture.componentInstance.decided.subscribe((body) => decided.push(body));
  const press = (key: string) =>
    document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
  return { ...pane, decided, press };
}

it('each value says where it came from, what was done to it, what it cost and how old it is', async () => {
  const { text } = await open();
  expect(text()).toContain('4 of 192');
  expect(text()).toContain('CELLAR LEAD capitals set');
  expect(text()).toMatch(/guild\.csv, row 2, 1 Jan 1970/);
  expect(text()).toMatch(/Lantern, £0\.15/);
  expect(text()).toContain('day 19 of 90');
  expect(text()).toContain('cheese-1.csv and 1 more');
  expect(text()).toContain('61 % likely the same as in Spring fair');
  expect(text()).toMatch(/Company\s*Tidewell/);
});

it('another value of the merged records is chosen, an empty field and a note are written by key', async () => {
  const { element, decided, press, stable, write } = await open();
  element.querySelectorAll<HTMLInputElement>('input[type=radio]')[1]!.dispatchEvent(new Event('change'));
  press('n');
  await stable();
  await write('textarea', 'Spoke of rind humidity');
  element.querySelector('form')!.dispatchEvent(new Event('submit', { cancelable: true }));
  press(' ');
  expect(decided).toEqual([
    { kind: 'choose', recordIds: [7, 9], recordId: 9, field: 'title' },
    { kind: 'edit', recordIds: [7, 9], field: 'note', value: 'Spoke of rind humidity' },
    { kind: 'keep', recordIds: [7, 9], step: 'screen' },
  ]);
});

it('while the next person is on its way nothing is decided about the last one', async () => {
  const { fixture, decided, press } = await open();
  fixture.componentRef.setInput('contactId', 8);
  press(' ');
  expect(decided).toEqual([]);
});
