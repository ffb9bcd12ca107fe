import type { OrderStep } from './lookup-order';

/** Valid emails that cost the same, in cents each. `who` brought or likely brings them: a finder's id, '' for what nobody is paid for, `finders` for whichever. */
export interface Priced {
  who: string;
  count: number;
  eachCents: number;
}

/**
 * The valid emails that looking up some people likely brings, as they come: what is made from patterns, then what each finder knows of whom those before
 * it did not.
 *
 * @param byPattern the share whose address patterns give, 0 to 1
 * @param order of the finders, for each person whom patterns do not give
 * @param verifyingCents what verifying the addresses of one person likely costs; each valid email bears its part
 */
export function likelyNext(
  contacts: number,
  byPattern: number,
  order: readonly Pick<OrderStep, 'who' | 'found' | 'cents'>[],
  verifyingCents: number,
): Priced[] {
  const lacking = contacts * (1 - byPattern);
  const found = [
    { who: '', count: contacts * byPattern, eachCents: 0 },
    ...order.map(({ who, found, cents }) => ({ who, count: lacking * found, eachCents: cents / found })),
  ].filter(({ count }) => count > 0);
  const all = found.reduce((sum, { count }) => sum + count, 0);
  return found.map((priced) => ({ ...priced, eachCents: priced.eachCents + (contacts * verifyingCents) / all }));
}

/** How many of what comes next can be paid for; all of it where the money does not end. */
export function paidFor(next: readonly Priced[], leftCents: number): number {
  let [left, count] = [leftCents, 0];
  for (const priced of next) {
    const paid = priced.eachCents > 0 ? Math.min(priced.count, left / priced.eachCents) : priced.count;
    count += paid;
    left -= paid * priced.eachCents;
    if (paid < priced.count) break;
  }
  return count;
}
