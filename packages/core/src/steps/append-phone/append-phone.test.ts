import type { AnswerOf, Question } from '../../facts/facts';
import type { ListedPhone, PhoneQuestion } from '../../facts/phones';
import { newContact, type Contact } from '../../model/contact';
import { NOWHERE } from '../../model/elsewhere';
import { NONE_MADE } from '../../model/made';
import { emptyPerson, type Person } from '../../model/person';
import { suppressionEntry, type SuppressionEntry } from '../../model/suppression';
import { NO_LISTS } from '../../model/word-lists';
import { answeredFacts, keyOf } from '../../testing/answered-facts';
import { sortDecisions } from '../../decisions/sort-decisions';
import { suppressionKey } from '../../suppression/suppression';
import { appendPhone } from './append-phone';
import { phoneKind } from './lines';
import { appendPhoneOptions } from './options';

const MILL = '12 Mill Lane, Wells, ZZ1 2AB';
const bill = {
  firstName: 'Bill',
  lastName: 'Hart',
  street: '12 Mill Lane',
  city: 'Wells',
  postcode: 'ZZ1 2AB',
  country: 'GB',
};
const ask = (question: Partial<PhoneQuestion>): Question => ({
  kind: 'phones',
  service: 'bellpull',
  firstName: '',
  lastName: 'Hart',
  address: MILL,
  ...question,
});
const listed = (number: string, firstName: string, kind: ListedPhone['kind'] = null): ListedPhone => ({
  number,
  firstName,
  lastName: 'Hart',
  kind,
});
const says = (...phones: ListedPhone[]): AnswerOf<'phones'> => ({ phones, priceCents: 3, pays: 'answer' });

/** Takes people through the step, in order, with what services answered. */
function take(
  people: Partial<Person>[],
  answers: [Question, AnswerOf<'phones'>][],
  { options = {}, suppressed = [] as Partial<SuppressionEntry>[], earlier = [] as string[] } = {},
) {
  const contacts = people.map((person, i): Contact => ({
    ...newContact(i + 1, { ...emptyPerson(), ...person }, false),
    ...(earlier.length > 0 && { earlierAddresses: earlier }),
  }));
  const entries = suppressed.map((one) => suppressionEntry.parse(one));
  const advance = appendPhone.prepare(contacts, appendPhoneOptions.parse({ services: ['bellpull'], ...options }), {
    facts: answeredFacts(new Map(answers.map(([question, answer]) => [keyOf(question), answer]))),
    suppression: new Map(entries.map((entry) => [suppressionKey(entry), entry])),
    decisions: sortDecisions([]),
    elsewhere: () => NOWHERE,
    made: NONE_MADE,
    lists: NO_LISTS,
    phoneCountry: 'GB',
  });
  return contacts.map((contact) => ({ stop: advance(contact, false), contact }));
}
const one = (...input: Parameters<typeof take>) => take(...input)[0]!;

test('three passes, each wider: as named, then the last name alone, then where they lived before; the answer says its pass', () => {
  const full = ask({ firstName: 'Bill' });
  const first = one([bill], []);
  expect(first.stop).toMatchObject({ state: 'waits', ask: full });
  const second = one([bill], [[full, says()]]);
  expect(second.stop).toMatchObject({ state: 'waits', ask: ask({}) });
  const third = one(
    [bill],
    [
      [full, says()],
      [ask({}), says()],
    ],
    { earlier: ['3 Weir Close, Frome, ZZ2 3CD'] },
  );
  expect(third.stop).toMatchObject({ state: 'waits', ask: ask({ address: '3 Weir Close, Frome, ZZ2 3CD' }) });

  const asWilliam = one(
    [bill],
    [
      [full, says()],
      [ask({}), says(listed('020 7946 0123', 'William'))],
    ],
  );
  expect(asWilliam.contact.person.phone).toBe('+442079460123');
  expect(asWilliam.contact.phone).toMatchObject({ kind: 'landline', pass: 'last', listedAs: 'William Hart' });
  const byPartner = one(
    [bill],
    [
      [full, says()],
      [ask({}), says(listed('020 7946 0123', 'Hilary'))],
    ],
  );
  const asNamed = one([bill], [[full, says(listed('020 7946 0123', 'Bill'))]]);
  const sure = [asNamed, asWilliam, byPartner].map(({ contact }) => contact.phone!.sure);
  expect(sure).toEqual([...sure].sort((a, b) => b - a));
  expect(new Set(sure).size).toBe(3);
});

test('in a pass each service is asked before the next pass; several numbers are kept in order; what is no number is passed over', () => {
  const options = { services: ['doorchime', 'bellpull'] };
  const full = (service: string) => ask({ service, firstName: 'Bill' });
  expect(one([bill], [[full('doorchime'), says()]], { options }).stop).toMatchObject({ ask: full('bellpull') });
  const { contact } = one(
    [bill],
    [
      [full('doorchime'), says(listed('12', 'Bill'))],
      [full('bellpull'), says(listed('+49 176 04069012', 'Hilary', 'mobile'), listed('0113 496 0417', 'Bill'))],
    ],
    { options },
  );
  expect([contact.person.phone, contact.phone!.others]).toEqual(['+441134960417', ['+4917604069012']]);
  expect(contact.added.phone).toMatchObject({ via: 'bellpull' });
});

test('who has no name or address is not asked about; who is needed with a phone and has none is set aside', () => {
  const nobody = { ...bill, street: '' };
  expect(one([nobody], []).stop).toBeNull();
  expect(one([nobody], [], { options: { needed: true } }).stop).toMatchObject({ code: 'no-name-or-address' });
  const all: [Question, AnswerOf<'phones'>][] = [
    [ask({ firstName: 'Bill' }), says()],
    [ask({}), says()],
  ];
  expect(one([bill], all).contact.phone).toMatchObject({ kind: 'none' });
  expect(one([bill], all, { options: { needed: true } }).stop).toMatchObject({ code: 'no-phone-found' });
});

test('whose number is on the list of those not to be called gets no other, and who asked not to be called is not looked up', () => {
  const found: [Question, AnswerOf<'phones'>][] = [[ask({ firstName: 'Bill' }), says(listed('020 7946 0123', 'Bill'))]];
  const why = 'not to be called' as const;
  const listedNot = { suppressed: [{ kind: 'phone' as const, value: '+442079460123', why }] };
  expect(one([bill], found, listedNot)).toMatchObject({ stop: null, contact: { person: { phone: '' } } });
  expect(one([bill], found, { ...listedNot, options: { needed: true } }).stop).toMatchObject({
    code: 'not-to-be-called',
  });
  const asked = { ...bill, email: 'bill@tidewell.example' };
  expect(one([asked], found, { suppressed: [{ kind: 'email', value: 'bill@tidewell.example', why }] })).toMatchObject({
    stop: null,
    contact: { person: { phone: '' }, phone: null },
  });
});

test('a number that colleagues share is a switchboard; one that people of two firms carry is doubted', () => {
  const at = (domain: string, phone: string) => ({ ...bill, domain, phone });
  const of = take(
    [
      at('tidewell.example', '+442079460100'),
      at('tidewell.example', '+442079460100'),
      at('tidewell.example', '+442079460101'),
      at('arranmor.example', '+442079460101'),
    ],
    [],
  ).map(({ contact }) => contact.phone!);
  expect(of.map(({ kind }) => kind)).toEqual(['switchboard', 'switchboard', 'landline', 'landline']);
  expect(of.map(({ doubted }) => doubted)).toEqual([false, false, true, true]);
  expect(of[2]!.sure).toBeLessThan(of[0]!.sure);
});

// What a number is by its plan: the types that libphonenumber gives for numbers that regulators keep for fiction.
test.each([
  ['+4917604069000', null, 1, 'mobile'],
  ['+61491570006', 'direct', 3, 'mobile'],
  ['+442079460123', null, 1, 'landline'],
  ['+442079460123', 'direct', 1, 'direct'],
  ['+442079460123', 'direct', 2, 'switchboard'],
  ['+442079460123;ext=12', null, 9, 'direct'],
  ['+448081570123', 'direct', 1, 'switchboard'],
  ['+12015550123', null, 1, 'unclear'],
  ['+12015550123', 'mobile', 1, 'mobile'],
] as const)('%s said to be %s, carried by %s: %s', (number, said, inFirm, kind) => {
  expect(phoneKind(number, said, inFirm)).toBe(kind);
});
