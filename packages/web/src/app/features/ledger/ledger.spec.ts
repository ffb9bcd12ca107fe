import type { HitRate, LedgerView, NextValid } from '@sieve/contract';
import { drawn, webHarness } from '../../testing/web-harness';
import { Ledger } from './ledger';

const spent = (cents: number, charges: number, refunds = 0) => ({ cents, charges, refunds });
const charge = {
  id: 7,
  at: Date.UTC(2026, 10, 3, 12),
  who: 'lantern',
  jobId: 2,
  jobName: 'Cheese makers',
  cents: 15,
  credits: 0,
  reason: 'valid address for contact 4',
  contact: 4,
  name: 'Maren Oakhill',
  givenBack: 0,
  refundOf: null,
};
const ledger: LedgerView = {
  all: spent(1500, 102, 1),
  before: spent(200, 20),
  plans: [{ who: 'lantern', credits: 40, cents: 600, at: Date.UTC(2026, 10, 3, 12), used: 12 }],
  planned: { cents: 810, jobs: 2 },
  services: [{ who: 'lantern', ...spent(1515, 102) }],
  jobs: [
    { jobId: 3, name: 'Cheap', spentCents: 75, budgetCents: 9000, valid: 486, ...spent(75, 5) },
    { jobId: 2, name: 'Cheese makers', spentCents: 8100, budgetCents: 9000, valid: 100, ...spent(1500, 102) },
  ],
  days: [
    { day: '2026-11-03', who: 'lantern', cents: 1515 },
    { day: '2026-11-04', who: 'lantern', cents: -15 },
  ],
  rows: [
    { ...charge, id: 9, cents: 0, credits: 1 },
    { ...charge, id: 8, cents: -15, refundOf: 7, reason: 'bounced' },
    charge,
  ],
  asked: spent(1500, 102, 1),
};

const figures: NextValid = {
  target: 300,
  got: [
    { who: '', count: 80, eachCents: 0 },
    { who: 'lantern', count: 100, eachCents: 15 },
  ],
  next: [
    { who: '', count: 10, eachCents: 0 },
    { who: 'lantern', count: 40, eachCents: 18 },
  ],
  leftCents: 360,
};
const rate = (name: string, asked: number, valid: number, eachCents: HitRate['eachCents'] = null) => ({
  ...{ name, asked, valid, eachCents },
});

async function open(settings: object = {}) {
  const { http } = webHarness();
  const pane = await drawn(Ledger, { month: '2026-11' });
  const finders = [{ id: 'lantern', name: 'Lantern', priceCents: 15 }];
  http.match('/api/settings').forEach((asked) =>
    asked.flush({
      version: 0,
      settings: {
        currency: 'GBP',
        finders,
        phoneServices: [],
        verifiers: [],
        companyService: null,
        topicService: null,
        languageModel: null,
        budgets: { monthCents: 0, folders: [] },
        ...settings,
      },
    }),
  );
  http.match(({ url }) => url === '/api/ledger').forEach((asked) => asked.cancelled || asked.flush(ledger));
  await pane.stable();
  return { ...pane, http };
}

it('says what the month cost, by day, service and job, and each charge with its reason', async () => {
  const { text, element } = await open();
  for (const words of [
    /£15\s*spent\s*for\s*102\s*charges/,
    /Lantern £15.15/,
    /£81\s*of £90\s*· nearly spent/,
    /£0.81 each/,
    /486 valid, £0.15 a hundred/,
    /Of the 40 credits of Lantern’s plan for £6 12 were used/,
    /contact 4\s*Cheese makers\s*1 credit /,
  ])
    expect(text()).toMatch(words);
  expect(text()).toContain('given back: bounced');
  expect(element.querySelectorAll('rect')).toHaveLength(2);
  const [up, down] = [...element.querySelectorAll('rect')].map((bar) => Number(bar.getAttribute('y')));
  expect(down).toBeGreaterThan(up!);
});

it('what the next valid email costs, and where the money ends; the yield of sources, what rests on few as doubtful', async () => {
  const { http, stable, element, text } = await open();
  http.expectOne('/api/jobs/3/next-valid').flush(figures);
  http
    .expectOne('/api/jobs/3/hit-rates')
    .flush([
      rate('poor.csv', 200, 40, { low: 50, likely: 60, high: 70 }),
      rate('good.csv', 20, 15),
      rate('asked for nobody', 0, 0),
    ]);
  await stable();
  expect(text()).toContain('likely nothing · Cheap: 180 of 300');
  const svg = element.querySelector('cs-next-valid svg')!;
  expect(svg.getAttribute('aria-label')).toBe(
    '80: free; 100 from Lantern: £0.15; about 10: free; about 40 from Lantern: £0.18; about 70 to bring in: £0.60',
  );
  // 180, 10 for nothing, and 20 for 360 cents.
  expect([...svg.querySelectorAll('.money text, .aim text')].map((mark) => mark.textContent.trim())).toEqual([
    'money ends, 210',
    'aim 300',
  ]);
  const rows = [...element.querySelectorAll('cs-yield-by-source .track')];
  expect(rows.map((row) => row.classList.contains('few'))).toEqual([true, false]);
  // Wilson 1927 for 15 of 20, from the formula by hand.
  expect(rows[0]!.getAttribute('title')).toBe('75 %, 53 to 89 % by chance');
});

it('the month’s budget says what is left, and warns at four fifths', async () => {
  const { text, element } = await open({ budgets: { monthCents: 1800, folders: [] } });
  expect(text()).toMatch(/£15\s*of £18\s*spent for\s*102\s*charges/);
  expect(text()).toMatch(/£3\s*of the month’s budget\s*is left/);
  expect(element.querySelector('.top .high')!.textContent).toContain('£3');
});

it('more rows than a page are leafed through; months are links; the file is of what is shown', async () => {
  const { element, button, http, stable } = await open();
  button('Next').click();
  await stable();
  const asked = http.match(({ url }) => url === '/api/ledger').at(-1)!;
  expect(asked.request.params.get('offset')).toBe('100');
  const links = [...element.querySelectorAll('a')].map((a) => a.getAttribute('href'));
  expect(links).toContain('/api/ledger/file?month=2026-11');
  expect(links.some((link) => link?.includes('month=2026-10'))).toBe(true);
});
