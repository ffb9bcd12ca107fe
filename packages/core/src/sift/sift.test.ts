import { NONE_MADE } from '../model/made';
import type { DecisionBody } from '../decisions/decision';
import {
  ANY_AGE,
  known as newest,
  questionKey,
  type Answer,
  type AnswerOf,
  type Facts,
  type Question,
  type QuestionOf,
} from '../facts/facts';
import { emptyPerson, type Person } from '../model/person';
import { NOBODY_ELSEWHERE } from '../model/elsewhere';
import { suppressionEntry } from '../model/suppression';
import { NO_LISTS } from '../model/word-lists';
import { STEPS } from '../steps/registry';
import { freshnessOf } from './freshness';
import { defaultSieve, faultOf, withStep, type SieveStep } from '../steps/sieve';
import { sift, siftTo, type SiftInput } from './sift';

const nobody = new Map();
const row = (recordId: number, values: Partial<Person>) => ({
  recordId,
  person: { ...emptyPerson(), ...values },
  extra: {},
  changes: 0,
  nobody: false,
});
const people = [
  row(1, {
    firstName: 'Maren',
    lastName: 'Oakhill',
    title: 'Head of Quality',
    company: 'Brackenfold',
    domain: 'brackenfold.example',
    email: 'maren.oakhill@brackenfold.example',
  }),
  row(2, {
    firstName: 'Tobias',
    lastName: 'Lindqvist',
    title: 'Quality Manager',
    company: 'Brackenfold',
    domain: 'brackenfold.example',
  }),
  row(3, {
    firstName: 'Idris',
    lastName: 'Venn',
    title: 'Delivery Driver',
    company: 'Tidewell',
    domain: 'tidewell.example',
  }),
  row(4, { firstName: 'Aoife', lastName: 'Corrie', title: 'Quality & Food Safety Lead', company: 'Arranmor' }),
];
const input = (change: Partial<SiftInput> = {}, ...bodies: DecisionBody[]): SiftInput => ({
  rows: people,
  companyRows: [],
  sieve: defaultSieve(),
  facts: (ask: Question) => newest(ask, [], 0, ANY_AGE),
  lists: NO_LISTS,
  suppression: nobody,
  elsewhere: () => NOBODY_ELSEWHERE,
  made: NONE_MADE,
  decisions: bodies.map((body, i) => ({ id: i + 1, body })),
  ...change,
});
const fates = (given: SiftInput) => Object.fromEntries(sift(given).contacts.map(({ id, fate }) => [id, fate.code]));
const sieveWith = (id: string, options: SieveStep['options']) =>
  withStep(defaultSieve(), { id, kind: id, on: true, options });
const screen = sieveWith('screen', {
  rules: [{ conditions: [{ field: 'title', values: ['driver'] }], fate: 'aside' }],
  briefTitles: ['Quality Manager', 'Head of Quality'],
  suppression: true,
  atMostPerCompany: 1,
});

test('every contact has one fate with its reason', () => {
  expect(fates(input({ sieve: screen }))).toEqual({
    1: 'to-ask',
    2: 'company-full',
    3: 'rule-words',
    4: 'title-near-brief',
  });
  const entry = suppressionEntry.parse({ kind: 'domain', value: 'brackenfold.example' });
  const suppression = new Map([['domain:brackenfold.example', entry]]);
  expect(fates(input({ sieve: screen, suppression }))).toMatchObject({ 1: 'suppressed', 2: 'suppressed' });
});

test('a decision wins over the rules, the later over the earlier, and taken back it is gone', () => {
  const keep: DecisionBody = { kind: 'keep', recordIds: [3], step: 'screen' };
  const aside: DecisionBody = { kind: 'set-aside', recordIds: [3] };
  expect(fates(input({ sieve: screen }, keep))[3]).toBe('to-ask');
  expect(fates(input({ sieve: screen }, keep, aside))[3]).toBe('by-hand');
  expect(fates(input({ sieve: screen }))[3]).toBe('rule-words');
  expect(
    fates(
      input({ sieve: screen }, { kind: 'group', by: 'title', value: 'quality & food safety lead', fate: 'keep' }),
    )[4],
  ).toBe('no-name-or-domain');
});

test('a contact without a domain or a company gets the one that its colleagues agree on', () => {
  const sifted = (values: Partial<Person>, ...more: Partial<Person>[]) =>
    sift(input({ rows: [...people.slice(0, 3), row(4, values), ...more.map((one, i) => row(5 + i, one))] }))
      .contacts[3]!;
  const byCompany = sifted({ company: 'Brackenfold' });
  expect([byCompany.person.domain, byCompany.from.domain]).toEqual(['brackenfold.example', 0]);
  const byDomain = sifted({ lastName: 'Devlin', domain: 'brackenfold.example' });
  expect([byDomain.person.company, byDomain.from.company]).toEqual(['Brackenfold', 0]);
  const another = { lastName: 'Venn', company: 'Larch Foods', domain: 'brackenfold.example' };
  expect(sifted({ lastName: 'Devlin', domain: 'brackenfold.example' }, another).person.company).toBe('');
});

/** A world of answers: one mailbox a domain exists, and a finder knows it; while it is `silent`, mail servers say nothing. */
function answering(mailboxes: Set<string>, catchAll: boolean) {
  const facts = new Map<string, { answer: Answer; askedAt: number }[]>();
  const asked: Question[] = [];
  const world = { silent: false, now: 1, fresh: freshnessOf(defaultSieve()) };
  const keyOf = (q: Question) => q.kind + questionKey(q);
  const look = ((q: Question) => newest(q, facts.get(keyOf(q)) ?? [], world.now, world.fresh)) as Facts;
  const answer = (q: Question) => {
    asked.push(q);
    const answers: { [K in Question['kind']]?: (q: QuestionOf<K>) => AnswerOf<K> } = {
      profiles: () => ({ total: 0, people: [] }),
      'mail-host': () => ({ state: 'hosts', hosts: ['mx.example'] }),
      mailbox: ({ email }) =>
        world.silent
          ? { state: 'no-answer', code: 0 }
          : { state: catchAll || mailboxes.has(email) ? 'accepted' : 'no-mailbox', code: 250 },
      'catch-all': () => ({ state: world.silent ? 'no-answer' : catchAll ? 'catch-all' : 'selective' }),
      finder: ({ domain }) => ({
        email: [...mailboxes].find((email) => email.endsWith(domain)) ?? null,
        lookup: `lk-${domain}`,
        priceCents: 15,
      }),
      purchase: () => ({ bought: true }),
    };
    const said = (answers[q.kind] as (q: Question) => Answer)(q);
    facts.set(keyOf(q), [{ answer: said, askedAt: world.now }, ...(facts.get(keyOf(q)) ?? [])]);
  };
  return Object.assign(world, { look, answer, asked });
}

/** Asks for each step that asks, each question once at a time. */
function askAll(given: SiftInput, world: ReturnType<typeof answering>) {
  for (const { kind } of STEPS.filter(({ asks }) => asks)) {
    const { came, take } = siftTo(kind, { ...given, facts: world.look });
    for (const contact of came) {
      const before = new Set<string>();
      for (let stop = take(contact); stop?.state === 'waits'; stop = take(contact)) {
        const key = JSON.stringify(stop.ask);
        if (before.has(key)) break;
        before.add(key);
        world.answer(stop.ask);
      }
    }
  }
  return sift({ ...given, facts: world.look }).contacts;
}

const withFinder = sieveWith('append-email', { candidates: 4, finders: ['lantern'] });

test('the domain’s own pattern is tried first, and only what verifies is bought', () => {
  const world = answering(
    new Set(['maren.oakhill@brackenfold.example', 'tobias.lindqvist@brackenfold.example', 'odd7@tidewell.example']),
    false,
  );
  const contacts = askAll(input({ sieve: withFinder }), world);
  const found = (id: number) => {
    const { person, added } = contacts.find((contact) => contact.id === id)!;
    return [person.email, added.email?.via];
  };
  expect(found(2)).toEqual(['tobias.lindqvist@brackenfold.example', 'pattern']);
  expect(world.asked.filter(({ kind }) => kind === 'mailbox')[0]).toEqual({
    kind: 'mailbox',
    email: 'tobias.lindqvist@brackenfold.example',
  });
  expect(found(3)).toEqual(['odd7@tidewell.example', 'lantern']);
  expect(world.asked.filter(({ kind }) => kind === 'purchase')).toEqual([
    { kind: 'purchase', finder: 'lantern', lookup: 'lk-tidewell.example', priceCents: 15 },
  ]);
  const before = world.asked.length;
  askAll(input({ sieve: withFinder }), world);
  expect(world.asked.length).toBe(before);
});

test('where mail is taken for anybody nothing is bought and everything is risky', () => {
  const world = answering(new Set(['x@tidewell.example']), true);
  const contacts = askAll(input({ sieve: withFinder }), world);
  expect(
    contacts.filter(({ judgement }) => judgement).map(({ judgement }) => [judgement!.verdict, judgement!.reason]),
  ).toEqual([
    ['risky', 'catch-all'],
    ['risky', 'catch-all'],
    ['risky', 'catch-all'],
  ]);
  expect(world.asked.some(({ kind }) => kind === 'purchase')).toBe(false);
});

test('an outage sets nobody aside, and asking again ends as if there had been none', () => {
  const mailboxes = new Set(['maren.oakhill@brackenfold.example', 'tobias.lindqvist@brackenfold.example']);
  const calm = askAll(input({ sieve: withFinder }), answering(mailboxes, false));
  const world = Object.assign(answering(mailboxes, false), { silent: true });
  const during = askAll(input({ sieve: withFinder }), world);
  expect(during.map(({ fate }) => `${fate.state} ${fate.code} ${fate.why['reason'] ?? ''}`)).toEqual([
    'waits no-answer-yet no-answer',
    'waits no-answer-yet no-answer',
    'waits no-answer-yet no-answer',
    'aside no-name-or-domain ',
  ]);
  world.silent = false;
  expect(askAll(input({ sieve: withFinder }), world)).toEqual(calm);
});

test('the same inputs give the same outcome on any day; facts that have aged make their contacts wait again', () => {
  const DAY = 86_400_000;
  const world = answering(new Set(['maren.oakhill@brackenfold.example']), false);
  const on = (day: number) => {
    world.now = day * DAY + 1;
    jest.useFakeTimers({ now: day * 7 * DAY });
    const outcome = sift({ ...input(), facts: world.look });
    jest.useRealTimers();
    return outcome;
  };
  askAll(input(), world);
  expect(on(89)).toEqual(on(1));
  expect(on(89).contacts[0]!.fate.state).toBe('pass');
  expect(on(91).contacts[0]!.fate).toMatchObject({ step: 'verify', state: 'waits', code: 'no-longer-fresh' });
  expect(on(91).contacts[0]!.judgement).toEqual(on(1).contacts[0]!.judgement);
  world.fresh = freshnessOf(
    withStep(defaultSieve(), { id: 'verify', kind: 'verify', on: true, options: { freshDays: 30 } }),
  );
  expect(on(30).contacts[0]!.fate.state).toBe('pass');
  expect(on(31).contacts[0]!.fate.code).toBe('no-longer-fresh');
});

test('a sieve is an ordered list: a step can be off, and stands only behind what it needs', () => {
  const sieve = defaultSieve();
  const off = sieve.map((step) => ({ ...step, on: step.id === 'tidy' }));
  expect(sift(input({ sieve: off })).contacts.every(({ fate }) => fate.state === 'pass')).toBe(true);
  const screenLast = [...sieve.filter(({ id }) => id !== 'screen'), sieve.find(({ id }) => id === 'screen')!];
  expect([faultOf(sieve), faultOf(screenLast)]).toEqual([null, null]);
  expect(faultOf(sieve.toReversed())).not.toBeNull();
  expect(faultOf(sieve.map((step) => ({ ...step, on: false })))).not.toBeNull();
  expect(faultOf(sieveWith('screen', { atMostPerCompany: -1 }))).not.toBeNull();
});

test('of merged records the one chosen by hand gives its values, with those that go with it; what is written later wins', () => {
  const link = 'https://www.people.example/p/hazel';
  const merged = [
    row(1, { firstName: 'Hazel', lastName: 'Thorne', title: 'Head of Quality', level: 'head', profile: link }),
    row(2, { firstName: 'Hazel', lastName: 'Thorne', title: 'Cellar lead', level: 'lead', profile: link }),
  ];
  const titleOf = (...bodies: DecisionBody[]) => {
    const { contacts } = sift(input({ rows: merged }, ...bodies));
    return [contacts.length, contacts[0]!.person.title, contacts[0]!.person.level, contacts[0]!.from.title];
  };
  expect(titleOf()).toEqual([1, 'Head of Quality', 'head', 1]);
  expect(titleOf({ kind: 'choose', recordIds: [1, 2], recordId: 2, field: 'title' })).toEqual([
    1,
    'Cellar lead',
    'lead',
    2,
  ]);
  // Taken apart, a choice among others says nothing.
  expect(
    titleOf({ kind: 'choose', recordIds: [1, 2], recordId: 2, field: 'title' }, { kind: 'apart', recordIds: [1, 2] }),
  ).toEqual([2, 'Head of Quality', 'head', undefined]);
});
