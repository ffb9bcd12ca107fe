import { emptyPerson, type Person } from '../model/person';
import { seededRandom } from '../text/random';
import { candidatePairs } from './blocks';
import { comparisons } from './compare';
import { KINDS } from './kinds';
import { learnWeights } from './learn';
import { matchPeople } from './match';
import { toSubjects } from './subject';

const random = seededRandom(21);
const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
const words = (n: number) =>
  Array.from({ length: n }, () =>
    Array.from({ length: 3 }, () => pick([...'bdfgklmnprstvz']) + pick([...'aeiou'])).join(''),
  );
const [first, last, cities, titles] = [words(80), words(300), words(12), words(8)];
const firms = words(400).map((word, i) => ({ company: `${word} works`, domain: `f${i}.example` }));
const job = () => ({ ...pick(firms), title: pick(titles) });

/** Two of five have a second record, of whom a share has changed the job in between. */
function listOf(size: number, moved: number) {
  const list: Person[] = [];
  const truth: number[] = [];
  for (let i = 0; i < size; i++) {
    const one = { ...emptyPerson(), firstName: pick(first), lastName: pick(last), city: pick(cities), ...job() };
    list.push(one);
    truth.push(i);
    if (random() > 0.4) continue;
    list.push({ ...one, ...(random() < moved ? job() : { title: pick([one.title, '']) }) });
    truth.push(i);
  }
  return { list, truth };
}

const learned = (list: Person[]) => {
  const subjects = toSubjects(list);
  return learnWeights(candidatePairs(subjects), subjects, comparisons(subjects), seededRandom(1));
};

test('how many have changed the job is learned, and so who has is found', () => {
  for (const share of [0.05, 0.35]) {
    const { list, truth } = listOf(1500, share);
    const { kinds } = learned(list);
    const moved = kinds.moved.share / (kinds.moved.share + kinds.stayed.share);
    expect(Math.abs(moved - share)).toBeLessThan(0.05);
    const { roots } = matchPeople(list, { mergeFrom: 0.8, judgeFrom: 0.3 });
    const doubles = truth.flatMap((one, i) => (truth[i - 1] === one ? [i] : []));
    const found = doubles.filter((i) => roots[i] === roots[i - 1]);
    const wrong = list.filter((_, i) => truth[roots[i]!] !== truth[i]);
    expect(found.length / doubles.length).toBeGreaterThan(0.95);
    expect(wrong.length / found.length).toBeLessThan(0.02);
  }
});

test('the kinds share out what was compared; of too few pairs nothing but a first guess is learned', () => {
  const { kinds, compared } = learned(listOf(800, 0.2).list);
  expect(KINDS.reduce((sum, name) => sum + kinds[name].share, 0)).toBeCloseTo(1, 9);
  expect(compared).toBeGreaterThan(300);
  const few = learned(listOf(3, 0).list);
  expect(few.kinds.moved.share).toBe(0);
  expect(few.kinds.neighbours.share).toBe(0);
  expect(few.kinship).toBe(1);
});
