/**
 * Packs sizes into as few bins of one capacity as possible. Up to 24 sizes the result is the fewest possible; more are packed
 * by best fit in decreasing order, which needs at most 11/9 of the fewest and a bin (Johnson 1974).
 *
 * @param sizes none over the capacity
 * @param steps after so many the fewest are no longer looked for
 * @returns indexes of the sizes, bin by bin
 */
export function pack(sizes: readonly number[], capacity: number, steps = 200_000): number[][] {
  const order = sizes.map((_, i) => i).sort((a, b) => sizes[b]! - sizes[a]!);
  const greedy = bestFit(order, sizes, capacity);
  const fewest = Math.ceil(sizes.reduce((sum, size) => sum + size, 0) / capacity);
  if (greedy.length <= fewest || sizes.length > 24) return greedy;
  for (let bins = Math.max(1, fewest); bins < greedy.length; bins++) {
    const found = into(bins, order, sizes, capacity, steps);
    if (found) return found;
  }
  return greedy;
}

function bestFit(order: readonly number[], sizes: readonly number[], capacity: number): number[][] {
  const bins: { room: number; items: number[] }[] = [];
  for (const item of order) {
    const size = sizes[item]!;
    const best = bins.filter(({ room }) => room >= size).sort((a, b) => a.room - b.room)[0];
    if (best) {
      best.items.push(item);
      best.room -= size;
    } else bins.push({ room: capacity - size, items: [item] });
  }
  return bins.map(({ items }) => items);
}

/** Tries to fill so many bins, largest first; equal rooms are tried once. Gives up after many steps. */
function into(
  count: number,
  order: readonly number[],
  sizes: readonly number[],
  capacity: number,
  most: number,
): number[][] | null {
  const rooms = Array<number>(count).fill(capacity);
  const bins = rooms.map((): number[] => []);
  let steps = most;
  const place = (k: number): boolean => {
    if (k === order.length) return true;
    if (--steps < 0) return false;
    const size = sizes[order[k]!]!;
    const tried = new Set<number>();
    for (let bin = 0; bin < count; bin++) {
      const room = rooms[bin]!;
      if (room < size || tried.has(room)) continue;
      tried.add(room);
      rooms[bin] = room - size;
      bins[bin]!.push(order[k]!);
      if (place(k + 1)) return true;
      bins[bin]!.pop();
      rooms[bin] = room;
    }
    return false;
  };
  return place(0) ? bins : null;
}
