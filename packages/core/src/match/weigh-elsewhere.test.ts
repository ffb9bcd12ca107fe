import { emptyPerson, type Person } from '../model/person';
import { LEAST_COMPARED, likeness } from './likeness';
import { matchPeople } from './match';
import { weighElsewhere } from './weigh-elsewhere';

const person = (values: Partial<Person>): Person => ({ ...emptyPerson(), ...values });
const few = matchPeople([], { mergeFrom: 0.8, judgeFrom: 0.3 }).weights;
const weights = { ...few, compared: LEAST_COMPARED };
const bill = person({ firstName: 'Bill', lastName: 'Hebden', company: 'Dunnock Dairies', city: 'Edale' });
const william = { ...bill, firstName: 'William' };

test('two of other lists are weighed by what a list taught: an exact key is all but certain, two first names are two people', () => {
  const likenessOf = likeness(weights);
  const withLink = { ...bill, profile: 'people.example/bill' };
  expect(likenessOf(withLink, { ...withLink, company: 'Arranmor', city: 'Bala' })).toBeGreaterThanOrEqual(0.999);
  expect(likenessOf(bill, { ...bill, firstName: 'Nuala' })).toBe(0);
  expect(likenessOf(bill, william)).toBe(likenessOf(william, bill));
  expect(likenessOf(bill, william)).toBeGreaterThan(
    likenessOf(bill, { ...william, company: 'Arranmor', city: 'Bala' })!,
  );
});

test('over the line of merging they are held, under that of judging they are somebody else', () => {
  const chance = likeness(weights)(bill, william)!;
  const found = { held: [], left: ['Spring'], alike: () => [{ job: 'Winter', person: william }] };
  const known = (mergeFrom: number, judgeFrom: number) =>
    weighElsewhere(() => found, { weights, mergeFrom, judgeFrom })(bill).held();
  expect(known(chance, 0)).toEqual({ surely: ['Winter'], likely: null });
  expect(known(1.1, chance)).toEqual({ surely: [], likely: { jobs: ['Winter'], chance } });
  expect(known(1.1, 1.1)).toEqual({ surely: [], likely: null });
});

test('a short list says of its own only what needs no weights', () => {
  const likenessOf = likeness(few);
  expect(likenessOf({ ...bill, profile: 'people.example/bill' }, { ...william, profile: 'people.example/bill' })).toBe(
    0.999,
  );
  expect(likenessOf(bill, { ...william, company: 'Dunnock Dairy' })).toBeNull();
  expect(likenessOf(bill, { ...william, company: 'Arranmor' })).toBe(0);
  const found = { held: [], left: [], alike: () => [{ job: 'Winter', person: william }] };
  expect(weighElsewhere(() => found, { weights: few, mergeFrom: 0.8, judgeFrom: 0.3 })(bill).held().likely).toEqual({
    jobs: ['Winter'],
    chance: null,
  });
});
