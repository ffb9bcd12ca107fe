import { sortDecisions } from '../../decisions/sort-decisions';
import type { Answer, Question } from '../../facts/facts';
import type { Owned } from '../../facts/owner';
import { newContact, type Contact } from '../../model/contact';
import { NOWHERE } from '../../model/elsewhere';
import { NONE_MADE } from '../../model/made';
import { emptyPerson, type Person } from '../../model/person';
import { NO_LISTS } from '../../model/word-lists';
import { answeredFacts, keyOf } from '../../testing/answered-facts';
import { fitsName } from './fits-name';
import { ownerOptions } from './options';
import { owner } from './owner';

const EMAIL = 'moak@tidewell.example';
const maren = { firstName: 'Maren', lastName: 'Oakhill', title: 'HEAD OF QUALITY', company: 'Tidewell Ltd' };
const other = { ...maren, firstName: 'Idris', lastName: 'Penn' };

/** Takes an address through the step with finders that know these people. */
function through(knows: Record<string, Owned | null>, more: Partial<Person> = {}, kept = false) {
  const answers = new Map<string, Answer>();
  const asked: Question[] = [];
  const env = {
    facts: answeredFacts(answers),
    decisions: sortDecisions([]),
    suppression: new Map(),
    elsewhere: () => NOWHERE,
    made: NONE_MADE,
    lists: NO_LISTS,
    phoneCountry: 'GB',
  };
  const contact: Contact = newContact(1, { ...emptyPerson(), email: EMAIL, ...more }, false);
  const advance = owner.prepare([contact], ownerOptions.parse({ finders: Object.keys(knows) }), env);
  for (;;) {
    const stop = advance(contact, kept);
    if (stop?.state !== 'waits') return { stop, contact, asked: asked.length };
    const { ask } = stop;
    if (ask.kind !== 'owner') throw new Error(ask.kind);
    asked.push(ask);
    answers.set(keyOf(ask), { person: knows[ask.finder]!, priceCents: 5, pays: 'answer' });
  }
}

test('an address without a name becomes a person with title and company, each with where it came from and how sure', () => {
  const { stop, contact, asked } = through({ lantern: maren, candle: other });
  expect([stop, asked]).toEqual([null, 1]);
  expect(contact.person).toMatchObject({
    firstName: 'Maren',
    lastName: 'Oakhill',
    title: 'Head of Quality',
    level: 'head',
    company: 'Tidewell',
  });
  expect(contact.added.lastName).toMatchObject({ via: 'lantern' });
  expect(contact.added.lastName!.sure).toBeGreaterThan(0.99);
});

test('a name that the address could not be made of is doubted, and the next finder asked; alone it wants a look, and is taken when kept', () => {
  const second = through({ candle: other, lantern: maren });
  expect([second.asked, second.contact.person.lastName]).toEqual([2, 'Oakhill']);
  const alone = through({ candle: other, lantern: null });
  expect(alone.stop).toMatchObject({ state: 'look', code: 'owner-doubtful', why: { name: 'Idris Penn', sure: 32 } });
  expect(alone.contact.person.lastName).toBe('');
  expect(through({ candle: other }, {}, true).contact.person.lastName).toBe('Penn');
});

test('whom nobody knows passes as they came; who has a name, or no address, is not asked about; what is known stays', () => {
  expect(through({ candle: null, lantern: null })).toMatchObject({ stop: null, asked: 2 });
  expect(through({ lantern: maren }, { lastName: 'Reed' }).asked).toBe(0);
  expect(through({ lantern: maren }, { email: '' }).asked).toBe(0);
  const { person } = through({ lantern: maren }, { company: 'Brackenfold' }).contact;
  expect([person.company, person.title]).toEqual(['Brackenfold', 'Head of Quality']);
});

test.each([
  ['moak@x.example', true],
  ['maren.oakhill2@x.example', true],
  ['oakhillm@x.example', true],
  ['maren@x.example', true],
  ['o_m+list@x.example', true],
  ['maria@x.example', false],
  ['info@x.example', false],
  ['7@x.example', false],
])('%s could be made of Maren Oakhill: %s', (email, is) => {
  expect(fitsName(email, maren)).toBe(is);
});
