import type { Job } from '@sieve/contract';
import { drawn, sampleJob, webHarness } from '../../../../testing/web-harness';
import { toldWords } from './bounces-dialog';
import { VerdictStrip } from './verdict-strip';

async function open(verdicts: Partial<NonNullable<Job['summary']>['verdicts']>, why: Record<string, number> = {}) {
  const { http } = webHarness();
  const job = sampleJob();
  const summary = job.summary!;
  const step = job.sieve.find(({ id }) => id === 'verify')!;
  const steps = summary.steps.map((one) => (one.id === 'verify' ? { ...one, why } : one));
  const none = { valid: 0, risky: 0, invalid: 0, unknown: 0, none: 0 };
  const strip = await drawn(VerdictStrip, {
    job: { ...job, summary: { ...summary, steps, verdicts: { ...none, ...verdicts } } },
    step,
  });
  return { ...strip, http };
}

it.each([
  [{ valid: 80, risky: 20 }, {}, '80 to 20: within the usual 80 to 20'],
  [{ valid: 60, risky: 40 }, { 'verdict risky catch-all': 40 }, 'With at most 15 of them it holds'],
  [{ valid: 30, risky: 70 }, { 'verdict risky catch-all': 65 }, 'catch-all would be the majority'],
])('what is advised of %j', async (verdicts, why, words) => {
  expect((await open(verdicts, why)).text()).toContain(words);
});

it('opened, it shows reasons, domains and sources, each a way to its rows', async () => {
  const { element, http, stable, text } = await open(
    { valid: 12, risky: 2, invalid: 3 },
    { 'verdict invalid no-mailbox': 3, 'verdict risky role': 2 },
  );
  element.querySelector('details')!.open = true;
  element.querySelector('details')!.dispatchEvent(new Event('toggle'));
  await stable();
  const row = { name: 'tidewell.example', valid: 2, risky: 1, invalid: 0, unknown: 0 };
  http.expectOne('/api/jobs/2/verdict-counts').flush({
    domains: [row],
    sources: [{ ...row, name: 'list.csv' }],
    freshUntil: [
      { at: Date.now() + 5 * 86_400_000, count: 4 },
      { at: Date.now() + 60 * 86_400_000, count: 13 },
    ],
  });
  await stable();
  expect(text()).toMatch(/mailbox accepted\s*12/);
  expect(text()).toMatch(/no such mailbox\s*3/);
  expect(text()).toMatch(/tidewell\.example\s*2 of 3/);
  expect(text()).toMatch(/4 of 17 verdicts are older than 90 days/);
  const day = element.querySelector<HTMLInputElement>('input[type=date]')!;
  day.value = '2999-01-01';
  day.dispatchEvent(new Event('change'));
  await stable();
  expect(text()).toMatch(/17 of 17 verdicts/);
  const links = [...element.querySelectorAll('a')].map((a) => decodeURIComponent(a.getAttribute('href')!));
  expect(links.some((link) => link.includes('fate=aside') && link.includes('why=verdict invalid no-mailbox'))).toBe(
    true,
  );
  expect(links.some((link) => link.includes('q=@tidewell.example'))).toBe(true);
});

it('says what bounces told', () => {
  const told = { invalid: 1, full: 2, refused: 0, unread: 3, domains: ['tidewell.example'] };
  expect(toldWords(told)).toBe(
    '1 address has no mailbox; 2 mailboxes are full; accepted before and sent back: tidewell.example; 3 lines name nobody.',
  );
});
