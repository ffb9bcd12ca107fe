import { soundex } from '../text/soundex';
import { fullForm } from '../words/nicknames';
import { numbering, type Interned, type Subjects } from './subject';

/** A block with more records than this is not compared in full but along its sorted order. */
const LARGEST_BLOCK = 16;
/** How many neighbours each record of a larger block is compared with, and of one ten times as large half as many. */
const NEIGHBOURS = 8;
const LEAST_NEIGHBOURS = 2;

/** Pairs of places among the subjects, `a(k) < b(k)`. */
export interface Pairs {
  a(k: number): number;
  b(k: number): number;
  size: number;
}

/**
 * The pairs worth comparing: those that share a key. Blocks are bounded, so the number of pairs grows nearly linearly
 * with the number of records; a pair that shares several keys comes once (twice at most in large blocks).
 */
export function candidatePairs(s: Subjects): Pairs {
  const pairs = growing();
  const before: Int32Array[] = [];
  for (const keys of blockKeys(s)) {
    const { records, starts } = blocksOf(keys);
    for (let block = 1; block + 1 < starts.length; block++) {
      const end = starts[block + 1]!;
      const reach = reachIn(end - starts[block]!);
      for (let i = starts[block]!; i < end; i++) {
        const x = records[i]!;
        const to = Math.min(end, i + 1 + reach);
        for (let j = i + 1; j < to; j++) {
          const y = records[j]!;
          if (!metIn(before, x, y)) pairs.push(x, y);
        }
      }
    }
    before.push(inSmallBlocks(keys));
  }
  return pairs.done();
}

/** The commoner a key is, the less it says of two that have it. */
function reachIn(size: number): number {
  if (size <= LARGEST_BLOCK) return LARGEST_BLOCK;
  const tenfold = Math.floor(Math.log10(size / LARGEST_BLOCK));
  return Math.max(LEAST_NEIGHBOURS, NEIGHBOURS >> tenfold);
}

/** At most so many of the pairs, evenly drawn, and how many pairs each of them stands for. */
export function samplePairs(pairs: Pairs, most: number): { sample: Pairs; each: number } {
  if (pairs.size <= most) return { sample: pairs, each: 1 };
  const drawn = (k: number) => Math.floor((k * pairs.size) / most);
  const sample = { a: (k: number) => pairs.a(drawn(k)), b: (k: number) => pairs.b(drawn(k)), size: most };
  return { sample, each: pairs.size / most };
}

/** True when an earlier pass has put both into one small block, and so has compared them. */
function metIn(before: readonly Int32Array[], x: number, y: number): boolean {
  for (const ids of before) if (ids[x] !== 0 && ids[x] === ids[y]) return true;
  return false;
}

/** The key of each record that is compared with all others of its block, 0 for the rest. */
const inSmallBlocks = ({ ids, counts }: Keys): Int32Array => ids.map((id) => (counts[id]! <= LARGEST_BLOCK ? id : 0));

/** For each record the number of its key, 0 for none, and how many records have each. */
interface Keys {
  ids: Int32Array;
  counts: Int32Array;
}

/** The keys, strongest first, each made when it is needed. A blank key puts a record into no block. */
function* blockKeys(s: Subjects): Generator<Keys> {
  const both = pairing(s.size);
  const sound = numbered(s.lastName, (name) => soundex(name) || name);
  const full = numbered(s.firstName, fullForm);
  const initial = numbered(s.firstName, (name) => fullForm(name).slice(0, 1));
  const names = counting();
  const first = numbered(s.firstName, (name) => name, names);
  const last = numbered(s.lastName, (name) => name, names);
  yield* [s.email, s.phone, s.profile];
  yield both(s.lastName.ids, full);
  yield both(sound, s.company.ids);
  yield both(sound, s.domain.ids);
  yield both(full, s.company.ids);
  yield both(both(sound, initial).ids, s.city.ids);
  yield both(
    first.map((id, i) => Math.min(id, last[i]!)),
    first.map((id, i) => Math.max(id, last[i]!)),
  );
}

/** For each record the number of a text made from its value. */
function numbered(column: Interned, change: (value: string) => string, numberOf = counting()): Int32Array {
  const ofValue = column.values.map((value) => numberOf(change(value)));
  return column.ids.map((id) => ofValue[id]!);
}

/** Numbers texts as they come, from 1; a blank one is 0. */
function counting() {
  let count = 0;
  return numbering(() => ++count);
}

/** Makes the key of two numbers together, for so many records; blank when either is. */
function pairing(size: number): (a: Int32Array, b: Int32Array) => Keys {
  // Where each key was first seen, by open addressing: a Map would make an object of every key.
  const bits = Math.ceil(Math.log2(size * 2 + 2));
  const last = 2 ** bits - 1;
  const firstAt = new Int32Array(last + 1);
  return (a, b) => {
    const ids = new Int32Array(size);
    const counts = [0];
    firstAt.fill(-1);
    for (let i = 0; i < size; i++) {
      if (a[i] === 0 || b[i] === 0) {
        counts[0]!++;
        continue;
      }
      let slot = (Math.imul(a[i]!, 0x9e3779b1) ^ Math.imul(b[i]!, 0x85ebca6b)) >>> (32 - bits);
      let first = firstAt[slot]!;
      while (first >= 0 && (a[first] !== a[i] || b[first] !== b[i])) first = firstAt[(slot = (slot + 1) & last)]!;
      if (first < 0) firstAt[slot] = i;
      ids[i] = first < 0 ? counts.push(0) - 1 : ids[first]!;
      counts[ids[i]!]!++;
    }
    return { ids, counts: Int32Array.from(counts) };
  };
}

/** The records by key, those of one key in name order; those of key `k` begin at `starts[k]`. */
function blocksOf({ ids, counts }: Keys): { records: Int32Array; starts: Int32Array } {
  const starts = new Int32Array(counts.length + 1);
  for (let k = 0; k < counts.length; k++) starts[k + 1] = starts[k]! + counts[k]!;
  const next = starts.slice();
  const records = new Int32Array(ids.length);
  for (let i = 0; i < ids.length; i++) records[next[ids[i]!]!++] = i;
  return { records, starts };
}

/** As many pairs as come, in chunks, so that none is moved when there are more. */
function growing() {
  const CHUNK_BITS = 18;
  const inChunk = 2 ** CHUNK_BITS - 1;
  const chunks: { a: Int32Array; b: Int32Array }[] = [];
  let size = 0;
  return {
    push(a: number, b: number) {
      const place = size++ & inChunk;
      if (place === 0) chunks.push({ a: new Int32Array(inChunk + 1), b: new Int32Array(inChunk + 1) });
      const chunk = chunks[chunks.length - 1]!;
      chunk.a[place] = a;
      chunk.b[place] = b;
    },
    done: (): Pairs => ({
      a: (k) => chunks[k >>> CHUNK_BITS]!.a[k & inChunk]!,
      b: (k) => chunks[k >>> CHUNK_BITS]!.b[k & inChunk]!,
      size,
    }),
  };
}
