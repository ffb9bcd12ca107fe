import { lookupWorld } from '../testing/lookup-world';
import { cheapestOrder, lookupOdds, orderOf, orderRanges, type LookupService } from './lookup-order';

function ordersOf(ids: readonly string[]): string[][] {
  const out: string[][] = [[]];
  for (const id of ids) out.push(...ordersOf(ids.filter((other) => other !== id)).map((rest) => [id, ...rest]));
  return out;
}

test('the order computed is the best of all orders tried one by one, for a yield and for a budget', () => {
  for (let seed = 1; seed <= 30; seed++) {
    const { services, person } = lookupWorld(seed, 4);
    const odds = lookupOdds(Array.from({ length: 200 }, person), services);
    const all = ordersOf(services.map(({ id }) => id)).map((ids) => orderOf(odds, ids));
    const most = Math.max(...all.map(({ found }) => found));
    for (const share of [0.5, 0.8, 1]) {
      const least = Math.min(...all.filter(({ found }) => found >= share * most - 1e-9).map(({ cents }) => cents));
      expect(cheapestOrder(odds, { found: share * most }).cents).toBeCloseTo(least, 8);
    }
    for (const cents of [1, 5, 12]) {
      const within = all.filter((order) => order.cents <= cents + 1e-9);
      expect(cheapestOrder(odds, { cents }).found).toBeCloseTo(Math.max(...within.map(({ found }) => found)), 8);
    }
  }
});

test('learned from people who were asked until somebody knew, it is cheaper than by price alone and near the order that knows the truth', () => {
  // 200 worlds are measured by `npm run bench -- lookup-orders`.
  const worlds = 12;
  const sums = { ours: 0, alone: 0, best: 0 };
  for (let seed = 1; seed <= worlds; seed++) {
    const { services, askedInAnyOrder, truth } = lookupWorld(1000 + seed, 5);
    const odds = lookupOdds(Array.from({ length: 3000 }, askedInAnyOrder), services);
    const byPrice = [...services].sort((a, b) => a.cents - b.cents).map(({ id }) => id);
    sums.alone += orderOf(truth, byPrice).cents;
    sums.ours += orderOf(truth, cheapestOrder(odds, { found: 1 }).ids).cents;
    sums.best += cheapestOrder(truth, { found: 1 }).cents;
  }
  expect(sums.ours).toBeLessThan(sums.alone * 0.95);
  expect(sums.ours).toBeLessThan(sums.best * 1.02);
});

test('what it claims lies in its range; without anybody asked it says what is usual', () => {
  let held = 0;
  for (let seed = 1; seed <= 40; seed++) {
    const { services, person, truth } = lookupWorld(5000 + seed, 3);
    const order = services.map(({ id }) => id);
    const is = orderOf(truth, order);
    const [range] = orderRanges(Array.from({ length: 300 }, person), services, [order]);
    if (range!.found.low <= is.found && is.found <= range!.found.high) held++;
  }
  expect(held).toBeGreaterThanOrEqual(32);
  const one: LookupService = { id: 'a', cents: 10, pays: 'valid' };
  expect(cheapestOrder(lookupOdds([], [one]), { found: 1 })).toMatchObject({ ids: ['a'], cents: 4 });
});
