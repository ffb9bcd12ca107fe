import { defaultSteps, withOptions } from '../model/step';
import type { DecisionBody } from '../model/decision';
import { emptyPerson, type Person } from '../model/person';
import { questionKey, type AnswerOf, type Facts, type Question } from '../model/question';
import { isScreened, patternsOf, settle, sift, type SiftInput } from './sift';

const nobody = { emails: new Set<string>(), domains: new Set<string>() };
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
  steps: defaultSteps(),
  facts: () => undefined,
  suppression: nobody,
  decisions: bodies.map((body, i) => ({ id: i + 1, body })),
  ...change,
});
const fates = (given: SiftInput) => Object.fromEntries(sift(given).contacts.map(({ id, fate }) => [id, fate.code]));
const screen = withOptions(defaultSteps(), {
  kind: 'screen',
  rules: [{ field: 'title', words: ['driver'], fate: 'aside' }],
  briefTitles: ['Quality Manager', 'Head of Quality'],
  suppression: true,
  atMostPerCompany: 1,
});

test('every contact has one fate with its reason', () => {
  expect(fates(input({ steps: screen }))).toEqual({
    1: 'to-verify',
    2: 'company-full',
    3: 'rule-words',
    4: 'title-near-brief',
  });
  const suppression = { emails: new Set<string>(), domains: new Set(['brackenfold.example']) };
  expect(fates(input({ steps: screen, suppression }))).toMatchObject({ 1: 'suppressed', 2: 'suppressed' });
});

test('a decision wins over the rules, the later over the earlier, and taken back it is gone', () => {
  const keep: DecisionBody = { kind: 'keep', recordIds: [3], step: 'screen' };
  const aside: DecisionBody = { kind: 'set-aside', recordIds: [3] };
  expect(fates(input({ steps: screen }, keep))[3]).toBe('to-ask');
  expect(fates(input({ steps: screen }, keep, aside))[3]).toBe('by-hand');
  expect(fates(input({ steps: screen }))[3]).toBe('rule-words');
  expect(fates(input({ steps: screen }, { kind: 'group', title: 'quality & food safety lead', fate: 'keep' }))[4]).toBe(
    'no-name-or-domain',
  );
});

test('a contact without a domain gets the one that its colleagues agree on', () => {
  const { person, from } = sift(input({ rows: [...people.slice(0, 3), row(4, { company: 'Brackenfold' })] }))
    .contacts[3]!;
  expect([person.domain, from.domain]).toEqual(['brackenfold.example', 0]);
});

/** A world of answers: one mailbox a domain exists, and a finder knows it. */
function answering(known: Set<string>, catchAll: boolean) {
  const facts = new Map<string, { answer: AnswerOf[Question['kind']]; askedAt: number }>();
  const asked: Question[] = [];
  const look = ((q: Question) => facts.get(q.kind + questionKey(q))) as Facts;
  const answer = (q: Question) => {
    asked.push(q);
    const answers: { [K in Question['kind']]: (q: Extract<Question, { kind: K }>) => AnswerOf[K] } = {
      'mail-host': () => ({ state: 'hosts', hosts: ['mx.example'] }),
      mailbox: ({ email }) => ({ state: catchAll || known.has(email) ? 'accepted' : 'no-mailbox', code: 250 }),
      'catch-all': () => ({ state: catchAll ? 'catch-all' : 'selective' }),
      finder: ({ domain }) => ({
        email: [...known].find((email) => email.endsWith(domain)) ?? null,
        lookup: `lk-${domain}`,
        priceCents: 15,
      }),
      purchase: () => ({ bought: true }),
    };
    facts.set(q.kind + questionKey(q), {
      answer: (answers[q.kind] as (q: Question) => AnswerOf[Question['kind']])(q),
      askedAt: 1,
    });
  };
  return { look, answer, asked };
}

function askAll(given: SiftInput, world: ReturnType<typeof answering>) {
  const { contacts } = sift({ ...given, facts: world.look });
  const patterns = patternsOf(contacts);
  for (const contact of contacts.filter(isScreened)) {
    for (
      let q = settle(contact, patterns, world.look, given.steps);
      q;
      q = settle(contact, patterns, world.look, given.steps)
    )
      world.answer(q);
  }
  return sift({ ...given, facts: world.look }).contacts;
}

test('the domain’s own pattern is tried first, and only what verifies is bought', () => {
  const steps = withOptions(defaultSteps(), { kind: 'append', on: true, candidates: 4, finders: ['lantern'] });
  const world = answering(
    new Set(['maren.oakhill@brackenfold.example', 'tobias.lindqvist@brackenfold.example', 'odd7@tidewell.example']),
    false,
  );
  const contacts = askAll(input({ steps }), world);
  expect(contacts.find(({ id }) => id === 2)!.appended).toMatchObject({
    email: 'tobias.lindqvist@brackenfold.example',
    via: 'pattern',
  });
  expect(world.asked.filter(({ kind }) => kind === 'mailbox')[1]).toEqual({
    kind: 'mailbox',
    email: 'tobias.lindqvist@brackenfold.example',
  });
  expect(contacts.find(({ id }) => id === 3)!.appended).toMatchObject({
    email: 'odd7@tidewell.example',
    via: 'lantern',
  });
  expect(world.asked.filter(({ kind }) => kind === 'purchase')).toEqual([
    { kind: 'purchase', finder: 'lantern', lookup: 'lk-tidewell.example', priceCents: 15 },
  ]);
  const before = world.asked.length;
  askAll(input({ steps }), world);
  expect(world.asked.length).toBe(before);
});

test('where mail is taken for anybody nothing is bought and everything is risky', () => {
  const steps = withOptions(defaultSteps(), { kind: 'append', on: true, candidates: 4, finders: ['lantern'] });
  const world = answering(new Set(['x@tidewell.example']), true);
  const contacts = askAll(input({ steps }), world);
  expect(
    contacts.filter(({ judgement }) => judgement).map(({ judgement }) => [judgement!.verdict, judgement!.reason]),
  ).toEqual([
    ['risky', 'catch-all'],
    ['risky', 'catch-all'],
    ['risky', 'catch-all'],
  ]);
  expect(world.asked.some(({ kind }) => kind === 'purchase')).toBe(false);
});
