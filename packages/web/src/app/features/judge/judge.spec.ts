import type { PairView } from '@sieve/contract';
import { emptyPerson } from '@sieve/core/model/person';
import { drawn, haveJobs, sampleJob, webHarness } from '../../testing/web-harness';
import { Judge } from './judge';

const record = (id: number, firstName: string): PairView['a'] => ({
  id,
  source: 'list.csv',
  line: id + 1,
  cells: [],
  person: { ...emptyPerson(), firstName, lastName: 'Oakhill', company: 'Brackenfold' },
  changes: [],
  issues: [],
});
const pair = (a: number, b: number): PairView => ({
  a: record(a, 'Maren'),
  b: record(b, 'M.'),
  chance: 0.62,
  evidence: [
    { field: 'firstName', level: 2, bits: -1.2 },
    { field: 'lastName', level: 4, bits: 6.4 },
  ],
  alike: [],
  alikeNames: [],
  group: null,
});
const press = (key: string) => document.dispatchEvent(new KeyboardEvent('keydown', { key }));

describe('judging pairs', () => {
  it('shows what speaks for and against, and takes one key for each answer', async () => {
    const { http } = webHarness();
    const { element, text, stable } = await drawn(Judge, { id: 1 });
    http.expectOne('/api/jobs/1/pairs').flush({ total: 2, pairs: [pair(1, 5), pair(2, 9)], taught: [] });
    await stable();
    expect(text()).toContain('2 pairs to judge');
    const bars = [...element.querySelectorAll<HTMLElement>('.bar i')];
    expect(bars.map((bar) => bar.classList.contains('against'))).toEqual([true, false]);
    expect(Number.parseFloat(bars[1]!.style.width)).toBeGreaterThan(Number.parseFloat(bars[0]!.style.width));
    press('l');
    await stable();
    press('s');
    const same = http.expectOne('/api/jobs/1/decisions');
    expect(same.request.body).toEqual({ body: { kind: 'same', a: 2, b: 9 } });
    same.flush({ id: 1 });
    await stable();
    press('d');
    const different = http.expectOne('/api/jobs/1/decisions');
    expect(different.request.body).toEqual({ body: { kind: 'different', a: 1, b: 5 } });
    different.flush({ id: 2 });
    await stable();
    expect(text()).toContain('No pair waits for you');
  });

  it('keeps a pair whose answer did not reach the server', async () => {
    const { http } = webHarness();
    const { text, stable } = await drawn(Judge, { id: 1 });
    // Before the answer is there, or without one, no number is said.
    expect(text()).toContain('Pairs to judge');
    http.expectOne('/api/jobs/1/pairs').flush({ total: 1, pairs: [pair(1, 5)], taught: [] });
    await stable();
    press('s');
    http.expectOne('/api/jobs/1/decisions').error(new ProgressEvent('error'));
    await stable();
    expect(text()).toContain('1 pair to judge');
  });

  it('decides those that show the same with one key, and draws what hangs together', async () => {
    const { http } = webHarness();
    const { element, text, stable } = await drawn(Judge, { id: 1 });
    const records = [1, 5, 7].map((id) => ({
      id,
      name: `Person ${id}`,
      company: 'Brackenfold',
      source: 'list',
      line: id,
    }));
    const group = {
      records,
      links: [
        { a: 1, b: 7, chance: 0.99, merged: true },
        { a: 1, b: 5, chance: 0.62, merged: false },
      ],
    };
    const alike = [{ a: 2, b: 9 }];
    const pairs = [{ ...pair(1, 5), alike, alikeNames: ['Maren Oakhill · M. Oakhill'], group }, pair(2, 9), pair(3, 8)];
    http.expectOne('/api/jobs/1/pairs').flush({ total: 3, pairs, taught: [] });
    await stable();
    expect(element.querySelector('cs-group-picture svg')!.getAttribute('aria-label')).toBe(
      '3 records hang together: 1 pairs are merged, 1 in doubt',
    );
    expect(element.querySelectorAll('line.doubtful.asked')).toHaveLength(1);
    expect(text()).toContain('1 more pair shows the same');
    document.dispatchEvent(new KeyboardEvent('keydown', { key: 'D', shiftKey: true }));
    const asked = http.expectOne('/api/jobs/1/decisions');
    expect(asked.request.body).toEqual({
      body: {
        kind: 'judge',
        pairs: [
          [1, 5],
          [2, 9],
        ],
        same: false,
      },
    });
    asked.flush({ id: 1 });
    await stable();
    expect(text()).toContain('1 pair to judge');
  });

  it('asks whether somebody is held in another job: the same is set aside, somebody else is kept', async () => {
    const { http } = webHarness();
    const { text, stable } = await drawn(Judge, { id: 1 });
    const { person } = record(5, 'Maren');
    const held = (contact: number, chance: number | null) => ({
      contact,
      step: 'screen',
      recordIds: [contact],
      person,
      there: { jobId: 2, job: 'Spring fair', contact: 8, chance, person: { ...person, company: 'Brackenfold Foods' } },
      evidence: [],
    });
    http.expectOne('/api/jobs/1/pairs').flush({ total: 2, pairs: [held(5, 0.44), held(6, null)], taught: [] });
    await stable();
    expect(text()).toContain('2 pairs to judge');
    expect(text()).toContain('Brackenfold Foods');
    press('s');
    const same = http.expectOne('/api/jobs/1/decisions');
    expect(same.request.body).toEqual({ body: { kind: 'set-aside', recordIds: [5] } });
    same.flush({ id: 1 });
    await stable();
    expect(text()).toContain('too little is known to say more');
    press('d');
    const other = http.expectOne('/api/jobs/1/decisions');
    expect(other.request.body).toEqual({ body: { kind: 'keep', recordIds: [6], step: 'screen' } });
    other.flush({ id: 2 });
    await stable();
    expect(text()).toContain('No pair waits for you');
  });

  it('follows what was taken back until the next answer, whose sift does not take the pair away that is looked at', async () => {
    const { http } = webHarness();
    const version = (version: number) => haveJobs([sampleJob({ id: 1, version })]);
    version(3);
    const { text, stable } = await drawn(Judge, { id: 1 });
    const pairs = () => http.expectOne('/api/jobs/1/pairs');
    pairs().flush({ total: 2, pairs: [pair(1, 5), pair(2, 9)], taught: [] });
    await stable();
    press('s');
    http.expectOne('/api/jobs/1/decisions').flush({ id: 7, body: { kind: 'same', a: 1, b: 5 } });
    version(4);
    await stable();
    http.expectNone('/api/jobs/1/pairs');
    document.dispatchEvent(new KeyboardEvent('keydown', { key: 'z', ctrlKey: true }));
    const said = { id: 7, body: { kind: 'same', a: 1, b: 5 }, author: 'you', at: 1, undoneAt: null };
    http.expectOne(({ url }) => url.endsWith('/decisions')).flush([said]);
    http.expectOne('/api/decisions/7').flush({ ...said, undoneAt: 2 });
    await stable();
    pairs().flush({ total: 1, pairs: [pair(2, 9)], taught: [] });
    version(5);
    await stable();
    pairs().flush({ total: 2, pairs: [pair(1, 5), pair(2, 9)], taught: [] });
    await stable();
    expect(text()).toContain('2 pairs to judge');
  });
});
