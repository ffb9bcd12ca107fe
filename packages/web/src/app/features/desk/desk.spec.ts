import type { Job } from '@sieve/contract';
import { defaultSteps } from '@sieve/core/model/step';
import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { workActions } from '../../state/work';
import { drawn, webHarness } from '../../testing/web-harness';
import { Desk } from './desk';

const count = (change: object = {}) => ({ came: 0, pass: 0, aside: 0, look: 0, waits: 0, ...change });
const job: Job = {
  id: 2,
  name: 'Cheese makers',
  folder: '',
  note: 'Larkfell loggers',
  targetValid: 600,
  budgetCents: 9000,
  createdAt: 1,
  version: 3,
  steps: defaultSteps(),
  spentCents: 450,
  decisions: 4,
  summary: {
    records: 2581,
    sources: 3,
    edits: 10,
    merged: 640,
    pairs: 22,
    expectedError: 0,
    steps: {
      tidy: count(),
      match: count(),
      screen: count({ look: 191 }),
      append: count({ waits: 92 }),
      verify: count(),
    },
    verdicts: { valid: 425, risky: 86, invalid: 19, unknown: 6, none: 239 },
    rules: {},
    likelyValid: 475,
  },
};

describe('desk', () => {
  const open = async (jobs: Job[]) => {
    const { http } = webHarness();
    (TestBed.inject(Store) as unknown as { dispatch: (action: object) => void }).dispatch(
      workActions.jobsCame({ jobs }),
    );
    const desk = await drawn(Desk);
    http.expectOne('/api/spend').flush([{ day: new Date().toISOString().slice(0, 10), cents: 450, bought: 30 }]);
    const searches = http.expectOne('/api/searches');
    return { ...desk, searches };
  };

  it('says how far each job is and what waits for a person', async () => {
    const { text, stable, searches } = await open([job]);
    searches.flush([
      { id: 5, name: 'Leads', nextAt: Date.now(), lastNew: 12 },
      { id: 6, nextAt: null },
    ]);
    await stable();
    for (const words of [
      '425 of 600 valid emails',
      '22 pairs to judge · 191 rows want a look',
      '92 people without an address',
      '12 new the last time',
      '£4.50',
    ])
      expect(text()).toContain(words);
    expect(text()).not.toContain('addresses to verify');
  });

  it('is empty with a next step, and stands without what could not be loaded', async () => {
    const { text, stable, searches } = await open([]);
    searches.error(new ProgressEvent('error'));
    await stable();
    expect(text()).toContain('No job yet');
    expect(text()).toContain('Nothing waits for you.');
  });
});
