import { NONE_MADE } from '../../model/made';
import { sortDecisions } from '../../decisions/sort-decisions';
import type { DecisionBody } from '../../decisions/decision';
import type { Answer, Question } from '../../facts/facts';
import { answeredFacts, keyOf } from '../../testing/answered-facts';
import type { Listed } from '../../facts/profiles';
import { newContact, type Contact } from '../../model/contact';
import { emptyPerson, type Person } from '../../model/person';
import { NOWHERE } from '../../model/elsewhere';
import { NO_LISTS } from '../../model/word-lists';
import { completedSieve, defaultSieve } from '../sieve';
import { profileOptions, type ProfileOptions } from './options';
import { profile } from './profile';
import { questionsFor } from './questions';

const listed = (link: string, more: Partial<Listed> = {}): Listed => ({
  name: 'Maren Oakhill',
  title: '',
  company: '',
  past: [],
  city: '',
  region: '',
  country: '',
  website: '',
  link: `https://www.directory.example/p/${link}/`,
  ...more,
});
const row = (more: Partial<Person>): Person => ({ ...emptyPerson(), firstName: 'Maren', lastName: 'Oakhill', ...more });

/** Takes somebody through the step with a directory that knows these people, whatever it is asked unless by company. */
function through(
  person: Person,
  people: Listed[],
  options: Partial<ProfileOptions> = {},
  decisions: DecisionBody[] = [],
  total = people.length,
) {
  const asked: Question[] = [];
  const answers = new Map<string, Answer>();
  const facts = answeredFacts(answers);
  const env = {
    facts,
    decisions: sortDecisions(decisions.map((body, i) => ({ id: i + 1, body }))),
    suppression: new Map(),
    elsewhere: () => NOWHERE,
    made: NONE_MADE,
    lists: NO_LISTS,
    phoneCountry: 'GB',
  };
  const contact: Contact = newContact(1, person, false);
  const advance = profile.prepare([contact], profileOptions.parse(options), env);
  for (;;) {
    const stop = advance(contact, false);
    if (stop?.state !== 'waits') return { stop, contact, asked };
    const { ask } = stop;
    asked.push(ask);
    const there =
      'company' in ask && ask.company !== '' ? people.filter(({ company }) => company.includes(ask.company)) : people;
    answers.set(keyOf(ask), { total: there.length < people.length ? there.length : total, people: there });
  }
}

test('one of that name at that company is taken with one question, and gives what the row lacks', () => {
  const found = listed('7', {
    title: 'OWNER',
    company: 'Brackenfold Ltd',
    city: 'Wells',
    website: 'brackenfold.example',
  });
  const { stop, contact, asked } = through(row({ company: 'Brackenfold' }), [found, listed('8', { company: 'Other' })]);
  expect([stop, asked.length]).toEqual([null, 1]);
  expect(contact.person).toMatchObject({
    profile: 'directory.example/p/7',
    title: 'Owner',
    company: 'Brackenfold',
    domain: 'brackenfold.example',
    city: 'Wells',
  });
  expect(contact.added.profile!.sure).toBeGreaterThan(0.98);
  expect(Object.keys(contact.added)).toEqual(expect.arrayContaining(['profile', 'title', 'domain', 'city']));
});

test('namesakes that nothing tells apart are judged, with one word', () => {
  const two = [listed('7', { city: 'Wells' }), listed('8', { city: 'Wells' })];
  const asks = row({ city: 'Wells' });
  expect(through(asks, two).stop).toMatchObject({ state: 'look', code: 'profile-doubtful', why: { sure: 44 } });
  const said = (link: string) => through(asks, two, {}, [{ kind: 'profile', recordIds: [1], link }]);
  expect(said('directory.example/p/8').contact.person.profile).toBe('directory.example/p/8');
  expect(said('directory.example/p/8').contact.added.profile!.sure).toBe(1);
  expect(said('').stop).toMatchObject({ state: 'aside', code: 'no-profile-found' });
});

test('the more namesakes a directory has, the less one of them alone says', () => {
  const one = [listed('7', { city: 'Kendal', country: 'GB' })];
  const person = row({ country: 'GB' });
  const options = { looser: ['anywhere' as const] };
  const sureOf = (total: number) => through(person, one, { ...options, takeFrom: 0.5 }, [], total);
  expect(sureOf(1).contact.added.profile!.sure).toBeGreaterThan(0.85);
  expect(sureOf(900).stop).toMatchObject({ state: 'aside' });
});

test('who moved is found by the earlier company, and takes nothing of the new one; another company alone speaks against', () => {
  const moved = listed('7', { company: 'Tidewell', past: ['Brackenfold Limited'], website: 'tidewell.example' });
  const options = { looser: ['other-company' as const, 'anywhere' as const] };
  const person = row({ company: 'Brackenfold', city: 'Wells', title: 'Owner' });
  const { contact } = through(person, [moved], options);
  expect([contact.person.profile, contact.person.domain]).toEqual(['directory.example/p/7', '']);
  const { stop } = through(person, [{ ...moved, past: [] }], options, [], 40);
  expect(stop).toMatchObject({ state: 'aside', code: 'no-profile-found' });
  expect(through(person, [{ ...moved, past: [] }], { ...options, needed: false }, [], 40).stop).toBeNull();
});

test('questions go from what the row says to looser ones, and each is asked once', () => {
  const person = row({ firstName: 'William', company: 'Brackenfold', city: 'Wells', country: 'GB' });
  const asked = (looser: ProfileOptions['looser'], who = person) =>
    [...questionsFor(who, profileOptions.parse({ looser }))].map(({ names, company, city, country }) =>
      [names.join('|'), company, city, country].join(),
    );
  expect(asked([])).toEqual(['William Oakhill,Brackenfold,,']);
  const [exact, forms] = asked(['short-forms']);
  expect([exact, forms!.includes('bill Oakhill')]).toEqual(['William Oakhill,Brackenfold,,', true]);
  expect(asked(['one-name', 'other-company', 'anywhere'])).toEqual([
    'William Oakhill,Brackenfold,,',
    'Oakhill,Brackenfold,,',
    'William,Brackenfold,,',
    'William Oakhill,,Wells,',
    'Oakhill,,Wells,',
    'William,,Wells,',
    'William Oakhill,,,GB',
    'William Oakhill,,,',
  ]);
  expect(asked(['one-name'], row({ firstName: 'W.', company: 'Brackenfold' }))).toEqual(['Oakhill,Brackenfold,,']);
  expect(asked([], row({ lastName: '' }))).toEqual([]);
});

test('an older sieve gets the step where a new one has it, turned off', () => {
  const older = defaultSieve().filter(({ kind }) => kind !== 'profile');
  expect(completedSieve(older).map(({ kind, on }) => `${kind} ${on}`)).toEqual([
    'tidy true',
    'match true',
    'owner false',
    'screen true',
    'profile false',
    'company false',
    'append-email true',
    'verify true',
    'append-phone false',
  ]);
  expect(completedSieve(defaultSieve())).toEqual(defaultSieve());
});
