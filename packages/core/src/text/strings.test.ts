import { fixture } from '../fixtures/read';
import { jaro, jaroWinkler } from './jaro-winkler';
import { oneEdit } from './one-edit';
import { seededRandom } from './random';
import { soundex } from './soundex';

// Published values (Winkler 1990, 1994) and python3-jellyfish 0.8.9: fixtures/README.md.
test.each(fixture('strings.csv'))('$a and $b are as alike as published', (row) => {
  expect(jaro(row['a']!, row['b']!)).toBeCloseTo(Number(row['jaro']), 5);
  expect(jaroWinkler(row['a']!, row['b']!)).toBeCloseTo(Number(row['jaro_winkler']), 5);
  const distance = Number(row['osa']);
  expect(oneEdit(row['a']!, row['b']!)).toBe(distance === 1);
});

// US National Archives rule, values of Text::Soundex 3.05.
test('Soundex codes 178 names as the National Archives do', () => {
  for (const { name, soundex_nara: code } of fixture('phonetic.csv'))
    expect([name, soundex(name!)]).toEqual([name, code]);
  expect(soundex('')).toBe('');
});

test('a floor saves work and changes nothing at or above it', () => {
  const random = seededRandom(11);
  const word = () =>
    Array.from({ length: 1 + Math.floor(random() * 12) }, () => 'abcdeéñ -o'[Math.floor(random() * 10)]!).join('');
  let saved = 0;
  for (let i = 0; i < 20_000; i++) {
    const a = word();
    const b = random() < 0.5 ? word() : a.slice(0, -1) + word();
    const floor = [0.84, 0.88, 0.92, 0.95][i % 4]!;
    const exact = jaroWinkler(a, b);
    const quick = jaroWinkler(a, b, floor);
    if (exact >= floor) expect([a, b, quick]).toEqual([a, b, exact]);
    else expect(quick === 0 || quick === exact).toBe(true);
    if (quick !== exact) saved++;
  }
  expect(saved).toBeGreaterThan(5000);
});

/** Jaro 1989 as it is defined, letter by letter. */
function jaroAsDefined(a: string, b: string): number {
  const reach = Math.max(0, Math.floor(Math.max(a.length, b.length) / 2) - 1);
  const taken = new Set<number>();
  const ofA = [...a].filter((letter, i) => {
    const at = [...b].findIndex((other, j) => other === letter && !taken.has(j) && Math.abs(i - j) <= reach);
    if (at >= 0) taken.add(at);
    return at >= 0;
  });
  const ofB = [...b].filter((_, j) => taken.has(j));
  const turned = Math.floor(ofA.filter((letter, k) => letter !== ofB[k]).length / 2);
  const m = ofA.length;
  return m === 0 ? 0 : (m / a.length + m / b.length + (m - turned) / m) / 3;
}

test('texts that fit into the bits of a number and texts that do not are as alike as Jaro says', () => {
  const random = seededRandom(12);
  const word = (most: number) =>
    Array.from({ length: 1 + Math.floor(random() * most) }, () => 'abcdeéñ -o漢'[Math.floor(random() * 11)]!).join('');
  for (let i = 0; i < 4000; i++) {
    const [a, b] = [word(40), word(40)];
    expect([a, b, jaro(a, b)]).toEqual([a, b, a === b ? 1 : expect.closeTo(jaroAsDefined(a, b), 12)]);
  }
});
