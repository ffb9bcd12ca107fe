/** Texts of more letters do not fit into the bits of a number. */
const MOST_BITS = 31;
/** Where in the second text each letter stands, as bits; nowhere between two comparisons. */
const standsAt = new Int32Array(1 << 16);
const flags = { a: new Uint8Array(64), b: new Uint8Array(64) };

/**
 * Jaro similarity of two strings, 0 to 1 (Jaro 1989). Two empty strings are equal: 1.
 *
 * @param floor what lies below it is given back as 0, as soon as so many letters are unmatched that no more can be reached
 */
export function jaro(a: string, b: string, floor = 0): number {
  if (a === b) return 1;
  const n = a.length;
  const m = b.length;
  if (n === 0 || m === 0) return 0;
  const reach = Math.max(0, (Math.max(n, m) >> 1) - 1);
  const most = n - Math.ceil((3 * floor - 1) / (1 / n + 1 / m) - 1e-9);
  return n > MOST_BITS || m > MOST_BITS ? byLetters(a, b, reach, most) : byBits(a, b, reach, most);
}

const similarity = (n: number, m: number, matches: number, halfTranspositions: number) =>
  (matches / n + matches / m + (matches - (halfTranspositions >> 1)) / matches) / 3;

/** All places that a letter can be found at are looked at at once (Hyyrö 2003, from memory). */
function byBits(a: string, b: string, reach: number, mostUnmatched: number): number {
  const [n, m] = [a.length, b.length];
  for (let j = 0; j < m; j++) standsAt[b.charCodeAt(j)]! |= 1 << j;
  let [inA, inB, matches] = [0, 0, 0];
  for (let i = 0; i < n && i - matches <= mostUnmatched; i++) {
    const around = i > reach ? ((2 << (2 * reach)) - 1) << (i - reach) : (2 << (i + reach)) - 1;
    const found = standsAt[a.charCodeAt(i)]! & around & ~inB;
    if (found === 0) continue;
    inA |= 1 << i;
    inB |= found & -found;
    matches++;
  }
  for (let j = 0; j < m; j++) standsAt[b.charCodeAt(j)] = 0;
  if (matches === 0 || n - matches > mostUnmatched) return 0;
  let halfTranspositions = 0;
  for (; inA !== 0; inA &= inA - 1, inB &= inB - 1)
    if (a.charCodeAt(lowestBit(inA)) !== b.charCodeAt(lowestBit(inB))) halfTranspositions++;
  return similarity(n, m, matches, halfTranspositions);
}

const lowestBit = (bits: number) => 31 - Math.clz32(bits & -bits);

function byLetters(a: string, b: string, reach: number, mostUnmatched: number): number {
  const [n, m] = [a.length, b.length];
  if (flags.a.length < n) flags.a = new Uint8Array(n * 2);
  if (flags.b.length < m) flags.b = new Uint8Array(m * 2);
  const inA = flags.a.fill(0, 0, n);
  const inB = flags.b.fill(0, 0, m);
  let matches = 0;
  for (let i = 0; i < n; i++) {
    if (i - matches > mostUnmatched) return 0;
    const code = a.charCodeAt(i);
    const to = Math.min(m - 1, i + reach);
    for (let j = Math.max(0, i - reach); j <= to; j++) {
      if (inB[j] || b.charCodeAt(j) !== code) continue;
      inA[i] = inB[j] = 1;
      matches++;
      break;
    }
  }
  if (matches === 0) return 0;
  let halfTranspositions = 0;
  for (let i = 0, j = 0; i < n; i++) {
    if (!inA[i]) continue;
    while (!inB[j]) j++;
    if (a.charCodeAt(i) !== b.charCodeAt(j)) halfTranspositions++;
    j++;
  }
  return similarity(n, m, matches, halfTranspositions);
}

/**
 * Jaro-Winkler similarity, 0 to 1 (Winkler 1990): Jaro, raised by a tenth of what is missing for each of the first four
 * letters that agree, where Jaro is above .7.
 *
 * @param floor what lies below it is of no interest; it may be given back as 0, which saves most of the work
 * @example jaroWinkler('MARTHA', 'MARHTA') // 0.9611
 */
export function jaroWinkler(a: string, b: string, floor = 0): number {
  const most = Math.min(4, a.length, b.length);
  let prefix = 0;
  while (prefix < most && a.charCodeAt(prefix) === b.charCodeAt(prefix)) prefix++;
  const raised = (similarity: number) => similarity + prefix * 0.1 * (1 - similarity);
  // Below .7 nothing is raised; above it the floor comes down by what the first letters raise.
  const needed = floor > 0.7 ? Math.max(0.7, (floor - prefix * 0.1) / (1 - prefix * 0.1)) - 1e-9 : floor;
  const similarity = jaro(a, b, needed);
  return similarity <= 0.7 ? similarity : raised(similarity);
}
