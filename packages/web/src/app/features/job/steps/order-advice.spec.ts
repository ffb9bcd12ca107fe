import type { LookupOrder, LookupOrders } from '@sieve/contract';
import { drawn, webHarness } from '../../../testing/web-harness';
import { OrderAdvice } from './order-advice';

const order = (ids: string[], found: number, cents: number): LookupOrder => ({
  ids,
  found,
  cents,
  foundRange: { low: found - 0.05, high: found + 0.05 },
  centsRange: { low: cents - 1, high: cents + 1 },
  less: { low: 2, high: 4 },
});
const finders = [
  { id: 'lantern', name: 'Lantern' },
  { id: 'candle', name: 'Candle' },
];

async function open(said: Partial<LookupOrders>) {
  const { http } = webHarness();
  const own = order(['lantern'], 0.7, 10);
  const pane = await drawn(OrderAdvice, { order: ['lantern'], finders });
  http
    .expectOne(({ url }) => url === '/api/lookup-orders')
    .flush({
      people: 400,
      seldom: ['candle'],
      each: [
        {
          ...{ id: 'lantern', asked: 400, right: 280, wrong: 20, low: 0.65, high: 0.74 },
          ...{ ms: 740, outages: 0, lastOutage: '', creditsLeft: 12 },
        },
        {
          ...{ id: 'candle', asked: 0, right: 0, wrong: 0, low: 0, high: 1 },
          ...{ ms: null, outages: 3, lastOutage: 'it answered 503', creditsLeft: 0 },
        },
      ],
      byHand: own,
      cheapest: own,
      most: own,
      ...said,
    });
  await pane.stable();
  http
    .match('/api/settings')
    .forEach((request) => request.flush({ version: 0, settings: { currency: 'GBP', finders: [] } }));
  await pane.stable();
  return pane;
}

it('says what the order by hand finds and costs, and which finds as many for less; one click takes it', async () => {
  const { text, element, fixture } = await open({ cheapest: order(['candle', 'lantern'], 0.7, 7) });
  expect(text()).toMatch(/70 %\s*65–75/);
  expect(text()).toContain('Candle, Lantern');
  expect(text()).toContain('Asked about too few to be counted on: Candle.');
  expect(text()).toContain('saves 30 % of what yours costs, nine times of ten 20 to 40 %');
  expect(text()).toMatch(/Lantern\s*12 credits left this month\s*400\s*70 %\s*65–74\s*5 %\s*0\.7 s/);
  expect(text()).toMatch(/Candle\s*could not be asked 3 times\s*0/);
  const used: string[][] = [];
  fixture.componentInstance.used.subscribe((ids) => used.push(ids));
  element.querySelector('button')!.click();
  expect(used).toEqual([['candle', 'lantern']]);
});

it('says so while too little was answered, and when no order is better', async () => {
  expect((await open({ people: 12 })).text()).toContain('12 of at least 30 people');
});

it('an order that cannot be bettered is said to be so', async () => {
  expect((await open({})).text()).toContain('No other order does as much for less');
});
