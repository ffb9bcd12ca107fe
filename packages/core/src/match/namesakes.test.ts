import { emptyPerson, type Person } from '../model/person';
import { seededRandom } from '../text/random';
import { comparisons } from './compare';
import { goTogether, kinship, type Drawn } from './namesakes';
import { toSubjects } from './subject';

const random = seededRandom(5);
const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
const names = (n: number) =>
  Array.from({ length: n }, () =>
    Array.from({ length: 4 }, () => pick([...'bdfgklmnprstvz']) + pick([...'aeiou'])).join(''),
  );
const listOf = (people: Partial<Person>[]): Drawn => {
  const subjects = toSubjects(people.map((one) => ({ ...emptyPerson(), ...one })));
  return { subjects, compare: comparisons(subjects), random };
};
const of = <T>(n: number, make: (i: number) => T): T[] => Array.from({ length: n }, (_, i) => make(i));

test('names go together as often as there are countries whose names nobody else has', () => {
  const land = () => ({ first: names(40), last: names(120) });
  const list = (lands: ReturnType<typeof land>[]) =>
    listOf(
      of(4000, () => {
        const { first, last } = pick(lands);
        return { firstName: pick(first), lastName: pick(last) };
      }),
    );
  expect(goTogether(list([land()]), 4000)).toBeCloseTo(1, 0);
  const three = goTogether(list([land(), land(), land()]), 4000);
  expect(three).toBeGreaterThan(2.4);
  expect(three).toBeLessThan(3.6);
  // Too few to say: as usual.
  expect(goTogether(listOf([{ firstName: 'Maren', lastName: 'Oakhill' }]), 1)).toBe(3);
  expect(goTogether(listOf([]), 0)).toBe(3);
});

test('one last name at one firm is kinship where families have firms, and chance where they have none', () => {
  const [first, last] = [names(60), names(60)];
  const firms = names(300);
  const strangers = of(3000, () => ({ firstName: pick(first), lastName: pick(last), company: pick(firms) }));
  expect(kinship(listOf(strangers))).toBeLessThan(0.3);
  const families = firms.flatMap((company) => {
    const lastName = pick(last);
    return of(4, () => ({ firstName: pick(first), lastName, company }));
  });
  expect(kinship(listOf(families))).toBeGreaterThan(0.9);
  expect(kinship(listOf([]))).toBe(0);
});
