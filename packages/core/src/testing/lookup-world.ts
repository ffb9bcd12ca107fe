import { PAYS } from '../facts/pays';
import type { LookupOdds, LookupService, SaidOfOne } from '../forecast/lookup-order';
import { seededRandom } from '../text/random';

/** What is charged for each valid address is more than for each answer, and that more than for each question. Common practice, no source. */
function priced(random: () => number): Pick<LookupService, 'pays' | 'cents'> {
  const pays = PAYS[Math.floor(3 * random())]!;
  const [least, most] = { valid: [5, 30], answer: [3, 20], question: [1, 8] }[pays] as [number, number];
  return { pays, cents: least + Math.floor((most - least + 1) * random()) };
}

/** A world of services that draw on common sources, so that they know and lack the same people. */
export function lookupWorld(seed: number, k: number) {
  const random = seededRandom(seed);
  const sources = Array.from({ length: 3 }, () => 0.2 + 0.5 * random());
  const services = Array.from(
    { length: k },
    (_, j): LookupService & { draws: number[]; own: number; errs: number } => ({
      id: `s${j}`,
      ...priced(random),
      draws: sources.map(() => (random() < 0.5 ? 0.5 + 0.5 * random() : 0)),
      own: 0.25 * random(),
      errs: 0.3 * random(),
    }),
  );
  const person = (): SaidOfOne => {
    const has = sources.map((share) => random() < share);
    return new Map(
      services.map(({ id, draws, own, errs }) => {
        const knows = random() < own || draws.some((share, s) => has[s]! && random() < share);
        return [id, knows ? 'valid' : random() < errs ? 'wrong' : 'none'] as const;
      }),
    );
  };
  /** The truth, from how the world is made: what the sources have and lack, each service's chance under it. */
  const unknownTo = Float64Array.from({ length: 1 << k }, (_, set) => {
    let unknown = 0;
    for (let has = 0; has < 1 << sources.length; has++) {
      const isThere = (s: number) => (has & (1 << s)) !== 0;
      const weight = sources.reduce((product, share, s) => product * (isThere(s) ? share : 1 - share), 1);
      const lacks = ({ draws, own }: (typeof services)[number]) =>
        draws.reduce((product, share, s) => (isThere(s) ? product * (1 - share) : product), 1 - own);
      unknown += services.reduce((product, one, j) => (set & (1 << j) ? product * lacks(one) : product), weight);
    }
    return unknown;
  });
  const truth: LookupOdds = { services, unknownTo, wrong: services.map(({ errs }) => errs) };
  /** Somebody asked of one service after the other, in any order, until one knows. */
  const askedInAnyOrder = (): SaidOfOne => {
    const all = person();
    const out = new Map<string, 'valid' | 'wrong' | 'none'>();
    for (const { id } of services.map((one) => ({ id: one.id, at: random() })).sort((a, b) => a.at - b.at)) {
      out.set(id, all.get(id)!);
      if (all.get(id) === 'valid') break;
    }
    return out;
  };
  return { services: services as LookupService[], person, askedInAnyOrder, truth };
}
