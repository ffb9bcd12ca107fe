import { emptyPerson, type Person } from '../model/person';
import { seededRandom } from '../text/random';
import { candidatePairs } from './blocks';
import {
  companyLevel,
  comparisons,
  emailLevel,
  firstNameLevel,
  lastNameLevel,
  phoneLevel,
  titleLevel,
  type Compared,
} from './compare';
import { toSubjects } from './subject';

// Levels: 1 different, 2 near, 3 nearly the same (4, the same, is never asked of these).
test.each([
  [firstNameLevel, 'bill', 'william', 3],
  [firstNameLevel, 'm', 'maren', 2],
  [firstNameLevel, 'j', 'maren', 1],
  [firstNameLevel, 'catherine', 'katherine', 3],
  [firstNameLevel, 'maren', 'tobias', 1],
  [lastNameLevel, 'oakhill', 'oakhlil', 3],
  [lastNameLevel, 'benson', 'bensonreyes', 2],
  [lastNameLevel, 'lee', 'lea', 1],
  [lastNameLevel, 'oakhill', 'venn', 1],
  [companyLevel, 'brackenfolddairy', 'brackenfolddairys', 3],
  [companyLevel, 'brackenfold', 'brackenfoldcreamery', 2],
  [companyLevel, 'brackenfold', 'tidewell', 1],
  [titleLevel, 'head of quality', 'quality head', 3],
  [titleLevel, 'quality manager', 'quality director', 2],
  [titleLevel, 'owner', 'driver', 1],
  [emailLevel, 'maren.oakhill@a.example', 'maren.oakhill@b.example', 3],
  [emailLevel, 'info@a.example', 'info@b.example', 2],
  [emailLevel, 'maren.oakhill@a.example', 'maren.oakhil@a.example', 3],
  [emailLevel, 'moakhill@a.example', 'moakhill2@a.example', 1],
  [phoneLevel, '+441134960417', '+441134960471', 3],
  [phoneLevel, '+441134960417', '+441134960999', 1],
] as const)('%p of %s and %s', (level, a, b, expected) => {
  expect(level(a, b)).toBe(expected);
  expect(level(b, a)).toBe(expected);
});

const person = (values: Partial<Person>): Person => ({ ...emptyPerson(), ...values });
const between = (a: Partial<Person>, b: Partial<Person>) => {
  const compare = comparisons(toSubjects([person(a), person(b)]));
  return (field: keyof typeof compare) => compare[field](0, 1);
};

test('a blank side says nothing, equal values are equal, one domain is one company', () => {
  const level = between(
    { firstName: 'Maren', company: 'Brackenfold Dairy', domain: 'brackenfold.example' },
    { firstName: 'MAREN', company: 'BFD', domain: 'brackenfold.example', city: 'Wells' },
  );
  expect([level('firstName'), level('lastName'), level('company'), level('city')]).toEqual([4, 0, 4, 0]);
});

test('first and last name in each other’s place are seen', () => {
  const level = between({ firstName: 'Maren', lastName: 'Oakhill' }, { firstName: 'Oakhill', lastName: 'Maren' });
  expect([level('firstName'), level('lastName')]).toEqual([3, 3]);
});

describe('blocks', () => {
  const random = seededRandom(5);
  const pick = (list: string[]) => list[Math.floor(random() * list.length)]!;
  const people = Array.from({ length: 3000 }, (_, i) =>
    person({
      firstName: pick(['Maren', 'Bob', 'Robert', 'Aoife']),
      lastName: pick(['Oakhill', 'Venn', 'Parry', 'Corrie', 'Lindqvist']) + (i % 7 ? '' : 's'),
      company: `Firm ${i % 400}`,
      email: i % 5 ? '' : `p${i % 900}@f.example`,
      city: pick(['Wells', 'Bala']),
    }),
  );
  const subjects = toSubjects(people);
  const pairs = candidatePairs(subjects);
  const places = Array.from({ length: pairs.size }, (_, k) => [pairs.a(k), pairs.b(k)] as const);

  test('no pair is a record with itself, each is told from the lower to the higher, most come once', () => {
    const seen = new Set(places.map(([a, b]) => a * people.length + b));
    expect(places.every(([a, b]) => a < b)).toBe(true);
    expect(seen.size).toBeGreaterThan(pairs.size * 0.4);
  });

  test('one mailbox, and one name at one firm, are always compared', () => {
    const recordsOf = (pair: readonly number[]) => pair.map((place) => subjects.records[place]!);
    const compared = new Set(
      places.map((pair) =>
        recordsOf(pair)
          .sort((x, y) => x - y)
          .join(' '),
      ),
    );
    const missed: [number, number][] = [];
    for (let a = 0; a < 300; a++)
      for (let b = a + 1; b < people.length; b++) {
        const [p, q] = [people[a]!, people[b]!];
        const mailbox = p.email !== '' && p.email === q.email;
        const name = p.lastName === q.lastName && p.firstName === q.firstName && p.company === q.company;
        if ((mailbox || name) && !compared.has(`${a} ${b}`)) missed.push([a, b]);
      }
    expect(missed).toEqual([]);
  });

  test('their number stays in proportion to the records, however common the names', () => {
    expect(pairs.size / people.length).toBeLessThan(8 * 10);
  });
});

test('names that stand in each other’s place are told in whichever order the records come, short or misspelt', () => {
  const whole = person({ firstName: 'Thomaz', lastName: 'Vaughn' });
  const turned = person({ firstName: 'V', lastName: 'Thomas' });
  for (const pair of [
    [whole, turned],
    [turned, whole],
  ]) {
    const { firstName, lastName } = comparisons(toSubjects(pair));
    for (const [a, b] of [
      [0, 1],
      [1, 0],
    ] as const)
      expect([firstName(a, b), lastName(a, b)]).toEqual([3, 3]);
  }
});

test('a line or a mailbox that two people have is one of others too; a Jr that is missing is no other person', () => {
  const line = '+441134960417';
  const people = [
    { firstName: 'Maren', lastName: 'Oakhill', phone: line, email: 'moakhill@a.example' },
    { firstName: 'Maren', lastName: 'Oakhill', phone: line, suffix: 'Jr.' },
    { firstName: 'Tobias', lastName: 'Venn', phone: line, suffix: 'PhD' },
    { firstName: 'Maren', lastName: 'Oakhill', phone: '+441134960999', email: 'moakhill@a.example', suffix: 'Sr' },
    { firstName: 'Maren', lastName: 'Oakhill', phone: '+441134960999', email: 'info@a.example' },
    { firstName: 'Maren', lastName: 'Oakhill', email: 'info@a.example' },
  ].map(person);
  const subjects = toSubjects(people);
  const compare = comparisons(subjects);
  const level = (field: Compared, ...pair: [number, number]) =>
    compare[field](...(pair.map((record) => subjects.records.indexOf(record)) as [number, number]));
  expect([level('phone', 0, 1), level('phone', 3, 4)]).toEqual([2, 4]);
  expect([level('email', 0, 3), level('email', 4, 5)]).toEqual([4, 2]);
  expect([level('suffix', 0, 2), level('suffix', 0, 1), level('suffix', 1, 3)]).toEqual([0, 2, 1]);
});
