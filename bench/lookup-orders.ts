// What the computed order of services saves beside asking by price alone, in 200 worlds of services that draw on common sources.
// npm run bench -- lookup-orders [WORLDS] [PEOPLE]
import { cheapestOrder, lookupOdds, orderOf } from '@sieve/core';
import { lookupWorld } from '@sieve/core/testing/lookup-world';

const [worlds = 200, people = 8000] = process.argv.slice(2).map(Number);
const SERVICES = 6;
for (const share of [0.9, 0.95, 1]) {
  const [savings, most, over, short]: [number[], number[], number[], number[]] = [[], [], [], []];
  for (let seed = 1; seed <= worlds; seed++) {
    const { services, askedInAnyOrder, truth } = lookupWorld(1000 + seed, SERVICES);
    const odds = lookupOdds(Array.from({ length: people }, askedInAnyOrder), services);
    const wanted = share * (1 - truth.unknownTo.at(-1)!);
    const byPrice = [...services].sort((a, b) => a.cents - b.cents).map(({ id }) => id);
    const prefix = byPrice.findIndex((_, i) => orderOf(truth, byPrice.slice(0, i + 1)).found >= wanted - 1e-9);
    const each = ({ cents, found }: { cents: number; found: number }) => cents / found;
    const alone = orderOf(truth, byPrice.slice(0, prefix + 1));
    const ours = orderOf(truth, cheapestOrder(odds, { found: share === 1 ? 1 : wanted }).ids);
    const best = cheapestOrder(truth, { found: wanted });
    savings.push(1 - each(ours) / each(alone));
    most.push(1 - each(best) / each(alone));
    over.push(each(ours) / each(best) - 1);
    short.push(wanted - ours.found);
  }
  const mean = (values: number[]) => values.reduce((sum, one) => sum + one, 0) / values.length;
  const percent = (n: number) => `${(100 * n).toFixed(1)} %`;
  process.stdout.write(
    `${percent(share)} of what all know: ${percent(mean(savings))} less for each found than by price alone, of ${percent(mean(most))} that can be saved; ` +
      `beside the order that knows the truth ${percent(mean(over))} more, at most ${percent(Math.max(...over))}, ` +
      `${over.filter((one) => one > 0.02).length} of ${worlds} over 2 %; at most ${percent(Math.max(...short))} fewer found than wanted\n`,
  );
}
