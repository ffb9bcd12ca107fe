import type { Job } from '@sieve/contract';
import { drawn, haveJobs, sampleJob, webHarness } from '../../testing/web-harness';
import { Desk } from './desk';

const job = sampleJob();
const { steps } = job.summary!;
const withoutMail = sampleJob({
  summary: { ...job.summary!, steps: steps.map((step) => (step.id === 'verify' ? { ...step, waits: 0 } : step)) },
});

describe('desk', () => {
  const open = async (jobs: Job[]) => {
    const { http } = webHarness();
    haveJobs(jobs);
    const desk = await drawn(Desk);
    http.expectOne('/api/spend').flush([{ day: new Date().toISOString().slice(0, 10), cents: 450, bought: 30 }]);
    const searches = http.expectOne('/api/searches');
    return { ...desk, searches };
  };

  it('says how far each job is and what waits for a person', async () => {
    const { text, stable, searches } = await open([withoutMail]);
    searches.flush([
      { id: 5, name: 'Leads', nextAt: Date.now(), lastNew: 12, failed: null },
      { id: 6, nextAt: null, failed: null },
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
