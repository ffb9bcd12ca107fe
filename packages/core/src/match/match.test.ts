import { emptyPerson, type Person } from '../model/person';
import { seededRandom } from '../text/random';
import { areForms } from '../words/nicknames';
import { candidatePairs } from './blocks';
import { cluster } from '../grouping/cluster';
import { matchPeople } from './match';
import { toSubjects } from './subject';
import { survive } from './survive';

const person = (values: Partial<Person>): Person => ({ ...emptyPerson(), ...values });
const FIRST = ['Maren', 'Robert', 'Aoife', 'William', 'Priya', 'Conor', 'Helen', 'Idris', 'Saoirse', 'Tobias'];
const LAST = [
  'Oakhill',
  'Lindqvist',
  'Brannagh',
  'Parry',
  'Farrow',
  'MacAskill',
  'Venn',
  'Tolliver',
  'Corrie',
  'Meredith',
  'Delahunt',
  'Ashdown',
  'Birkett',
  'Carvell',
];
const SHORT: Record<string, string> = { Robert: 'Bob', William: 'Bill' };

/** People of one firm each, and for a third of them a second record with an email, a short name or a slip. */
function world(seed: number, size: number) {
  const random = seededRandom(seed);
  const pick = <T>(list: T[]) => list[Math.floor(random() * list.length)]!;
  const people: Person[] = [];
  const truth: number[] = [];
  for (let i = 0; i < size; i++) {
    const one = person({
      firstName: pick(FIRST),
      lastName: pick(LAST),
      company: `Firm ${i % 150} Dairy`,
      city: pick(['Wells', 'Settle', 'Bala']),
      title: 'Quality Manager',
    });
    one.email = random() < 0.5 ? `${one.firstName}.${one.lastName}${i}@f${i % 150}.example`.toLowerCase() : '';
    people.push(one);
    truth.push(i);
    if (random() < 0.33) {
      people.push({
        ...one,
        firstName: SHORT[one.firstName] ?? one.firstName,
        lastName:
          random() < 0.2 ? one.lastName.slice(0, -2) + one.lastName.at(-1)! + one.lastName.at(-2)! : one.lastName,
        title: 'Quality Mgr',
      });
      truth.push(i);
    }
  }
  return { people, truth };
}

test('finds the doubles of a made-up world, and little else', () => {
  const { people, truth } = world(5, 900);
  const { roots } = matchPeople(people, { mergeFrom: 0.9, judgeFrom: 0.3 });
  let right = 0;
  let wrong = 0;
  let all = 0;
  for (let i = 0; i < people.length; i++)
    for (let j = i + 1; j < people.length; j++) {
      const same = truth[i] === truth[j];
      if (same) all++;
      if (roots[i] === roots[j]) same ? right++ : wrong++;
    }
  expect(right / all).toBeGreaterThan(0.95);
  expect(right / (right + wrong)).toBeGreaterThan(0.95);
});

test('a family in one house on one line is no person, however much it shares; the error is not said too small', () => {
  const random = seededRandom(11);
  const pick = <T>(list: T[]) => list[Math.floor(random() * list.length)]!;
  const word = () => Array.from({ length: 6 }, () => pick([...'abcdefghiklmnoprstuv'])).join('');
  const given = Array.from({ length: 200 }, word);
  const people: Person[] = [];
  const truth: number[] = [];
  for (let home = 0; home < 700; home++) {
    const names = new Set(Array.from({ length: 1 + Math.floor(random() * 4) }, () => pick(given)));
    const shared = {
      lastName: `${pick(LAST)}${home % 9}`,
      phone: `+12125550${100 + home}`,
      street: `Mill Lane ${home}`,
      postcode: String(10_000 + home),
      city: pick(['Wells', 'Settle', 'Bala']),
    };
    for (const firstName of names) {
      const id = truth.length;
      for (let k = random() < 0.4 ? 2 : 1; k > 0; k--) {
        people.push(person({ ...shared, firstName, phone: random() < 0.3 ? '' : shared.phone }));
        truth.push(id);
      }
    }
  }
  const { roots, errorRange } = matchPeople(people, { mergeFrom: 0.8, judgeFrom: 0.3 });
  let [right, wrong] = [0, 0];
  for (const [i, root] of roots.entries()) if (root !== i) truth[i] === truth[root] ? right++ : wrong++;
  const real = truth.length - new Set(truth).size;
  expect(right / real).toBeGreaterThan(0.97);
  expect(wrong / (right + wrong)).toBeLessThan(0.02);
  expect(wrong / (right + wrong)).toBeLessThanOrEqual(errorRange.high);
});

test('the same data gives the same outcome, and what a person says wins', () => {
  const { people } = world(6, 200);
  const lines = { mergeFrom: 0.9, judgeFrom: 0.3 };
  const first = matchPeople(people, lines);
  expect(matchPeople(people, lines)).toEqual(first);
  const merged = first.roots.findIndex((root, i) => root !== i);
  const apart = matchPeople(people, lines, [], [[first.roots[merged]!, merged]]);
  expect(apart.roots[merged]).not.toBe(apart.roots[first.roots[merged]!]);
  expect(matchPeople(people, lines, [[0, people.length - 1]]).roots[people.length - 1]).toBe(0);
  // All of a large group taken apart stand alone; a pair of them that was judged the same stands together.
  const all = people.map((_, i) => i);
  const alone = matchPeople(people, lines, [[2, 5]], [all]);
  expect([...alone.roots].map((root, i) => root === i).filter((isAlone) => !isAlone)).toHaveLength(1);
  expect([alone.roots[5], alone.doubtfulCount]).toEqual([2, 0]);
});

test('two records that a person told apart tell their groups apart', () => {
  const { people } = world(3, 900);
  const lines = { mergeFrom: 0.9, judgeFrom: 0.001 };
  const { roots, doubtful } = matchPeople(people, lines);
  const siblingOf = (record: number) => roots.findIndex((root, other) => root === roots[record] && other !== record);
  const { a, b } = doubtful.find((link) => siblingOf(link.a) >= 0)!;
  const after = matchPeople(people, lines, [], [[siblingOf(a), b]]);
  const groups = (x: number, y: number) => [roots[x]!, roots[y]!].sort((p, q) => p - q).join();
  expect(after.doubtful.filter((link) => groups(link.a, link.b) === groups(a, b))).toEqual([]);
});

test('the line goes as low as the accepted error allows, and no lower', () => {
  const { people } = world(3, 900);
  const at = (acceptedError: number | null) => matchPeople(people, { mergeFrom: 0.9, judgeFrom: 0.05, acceptedError });
  const [strict, usual, loose] = [at(0.001), at(null), at(0.1)];
  expect(usual.mergeFrom).toBe(0.9);
  expect(strict.mergeFrom).toBeGreaterThan(loose.mergeFrom);
  expect(strict.expectedError).toBeLessThanOrEqual(0.001 + 1e-9);
  expect(loose.expectedError).toBeLessThanOrEqual(0.1);
  const merged = ({ roots }: { roots: Int32Array }) => roots.filter((root, i) => root !== i).length;
  expect(merged(strict)).toBeLessThan(merged(loose));
  expect(at(0).mergeFrom).toBeGreaterThan(1);
});

test('relatives with one mailbox stay two people', () => {
  const { people } = world(7, 300);
  const shared = { lastName: 'Hathersage', company: 'Edale', email: 'office@edale.example', phone: '+441134960417' };
  const { roots } = matchPeople(
    [...people, person({ ...shared, firstName: 'Piers' }), person({ ...shared, firstName: 'Camille' })],
    { mergeFrom: 0.9, judgeFrom: 0.3 },
  );
  expect(roots.at(-1)).not.toBe(roots.at(-2));
});

test('blocks are bounded: pairs grow about as the records do', () => {
  const same = (n: number) =>
    Array.from({ length: n }, (_, i) =>
      person({ firstName: 'Ann', lastName: 'Smith', company: 'One', email: `a${i}@x.example` }),
    );
  const small = candidatePairs(toSubjects(same(1000))).size;
  expect(candidatePairs(toSubjects(same(4000))).size).toBeLessThan(small * 5);
});

test('no cluster joins what a person keeps apart, by whatever way round', () => {
  const random = seededRandom(9);
  for (let round = 0; round < 100; round++) {
    const size = 12;
    const pair = (): [number, number] => {
      const a = Math.floor(random() * size);
      return [a, (a + 1 + Math.floor(random() * (size - 1))) % size];
    };
    const different = [pair(), pair()];
    const roots = cluster(
      size,
      Array.from({ length: 30 }, () => ({ a: pair()[0], b: pair()[1] })).filter(({ a, b }) => a !== b),
      [],
      different,
      () => false,
    );
    for (const [a, b] of different) expect(roots[a]).not.toBe(roots[b]);
  }
});

test('the fullest value survives, and a name comes from one record', () => {
  const group = [
    person({ firstName: 'B.', lastName: 'Hathersage', title: 'Owner' }),
    person({ firstName: 'Robert', lastName: 'Hathersage', email: 'r@edale.example' }),
  ].map((one, i) => ({ recordId: 7 + i, person: one }));
  expect(survive(group, 'fullest')).toMatchObject({
    person: { firstName: 'Robert', title: 'Owner', email: 'r@edale.example' },
    from: { firstName: 8, title: 7, email: 8 },
  });
  expect(survive(group, 'first').person.firstName).toBe('B.');
  expect(survive(group, 'latest').person.firstName).toBe('Robert');
});

test('what a source says of what is held goes before the rule: fill, overwrite, keep, by field', () => {
  const held = {
    recordId: 1,
    person: person({ firstName: 'Robert', lastName: 'Hathersage', title: 'Owner', city: 'Wells' }),
  };
  const comes = (rule: 'fill' | 'overwrite' | 'keep') => ({
    recordId: 2,
    person: person({ firstName: 'R.', lastName: 'Hathersage', title: 'Managing Director', phone: '+441134960001' }),
    rules: { title: rule, phone: rule, firstName: rule },
  });
  const after = (rule: 'fill' | 'overwrite' | 'keep', ...more: { recordId: number; person: Person }[]) => {
    const { person: is } = survive([held, comes(rule), ...more], 'latest');
    return [is.firstName, is.title, is.phone, is.city];
  };
  expect(after('fill')).toEqual(['Robert', 'Owner', '+441134960001', 'Wells']);
  expect(after('overwrite')).toEqual(['R.', 'Managing Director', '+441134960001', 'Wells']);
  expect(after('keep')).toEqual(['Robert', 'Owner', '', 'Wells']);
  const later = { recordId: 3, person: person({ lastName: 'Hathersage', phone: '+441134960002' }) };
  expect(after('keep', later)[2]).toBe('+441134960002');
  // Two rows of the same source hold nothing against each other.
  const two = [comes('keep'), comes('keep')];
  two[1]!.rules = two[0]!.rules;
  expect(survive(two, 'latest').person.title).toBe('Managing Director');
});

test('short forms of names', () => {
  expect([areForms('bill', 'william'), areForms('liz', 'elizabeth'), areForms('bill', 'robert')]).toEqual([
    true,
    true,
    false,
  ]);
});
