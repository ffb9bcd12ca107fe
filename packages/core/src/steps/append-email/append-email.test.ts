import { judge } from '../../mail/judge';
import { emptyPerson } from '../../model/person';
import {
  ANY_AGE,
  answeredBy,
  known as newest,
  questionKey,
  type Answer,
  type AnswerOf,
  type Facts,
  type Question,
} from '../../facts/facts';
import { NO_LISTS } from '../../model/word-lists';
import { findEmail } from './append-email';
import { learningPatterns } from './learn';
import { appendEmailOptions } from './options';
import { candidatesFor, claimsOf } from './candidates';
import { howMade, localPart, localParts, PATTERNS } from './patterns';

const keyOf = (q: Question) => `${q.kind} ${answeredBy(q)} ${questionKey(q)}`;

/** Answers by question; what is not answered has to be asked. `noneMs`: how long a finder's none counts, two ms after it was given. */
const known = (...answers: [Question, Answer][]) => knownFor(Infinity, ...answers);
function knownFor(noneMs: number, ...answers: [Question, Answer][]) {
  const byKey = new Map(answers.map(([q, answer]) => [keyOf(q), { answer, askedAt: 1 }]));
  const facts = ((q: Question) => {
    const fact = byKey.get(keyOf(q));
    return newest(q, fact ? [fact] : [], 3, { agesMs: 90, noneMs: { ...ANY_AGE.noneMs, finder: noneMs } });
  }) as Facts;
  return { facts, lists: NO_LISTS };
}
const email = 'maren.oakhill@brackenfold.example';
const domain = 'brackenfold.example';
const hosts: [Question, AnswerOf<'mail-host'>] = [
  { kind: 'mail-host', domain },
  { state: 'hosts', hosts: ['mx.example'] },
];
const mailbox = (state: AnswerOf<'mailbox'>['state'], address = email): [Question, AnswerOf<'mailbox'>] => [
  { kind: 'mailbox', email: address },
  { state, code: 250 },
];
const cameBack = (...addresses: string[]): [Question, AnswerOf<'bounces'>] => [
  { kind: 'bounces', domain },
  { addresses },
];
const takesAll = (state: AnswerOf<'catch-all'>['state']): [Question, AnswerOf<'catch-all'>] => [
  { kind: 'catch-all', domain },
  { state },
];

describe('a verdict and its reason', () => {
  test.each([
    ['maren', [], 'invalid', 'not-an-address'],
    [email, [[{ kind: 'mail-host', domain }, { state: 'no-domain' }]], 'invalid', 'no-domain'],
    [email, [[{ kind: 'mail-host', domain }, { state: 'none' }]], 'invalid', 'no-mail-server'],
    [email, [hosts, mailbox('no-mailbox')], 'invalid', 'no-mailbox'],
    [email, [hosts, mailbox('full')], 'risky', 'mailbox-full'],
    [email, [hosts, mailbox('refused-us')], 'unknown', 'refused-us'],
    [email, [hosts, mailbox('accepted'), takesAll('catch-all')], 'risky', 'catch-all'],
    [email, [hosts, mailbox('accepted'), takesAll('selective')], 'valid', 'accepted'],
    [`info@${domain}`, [hosts, mailbox('accepted', `info@${domain}`), takesAll('selective')], 'risky', 'role'],
    [email, [hosts, mailbox('accepted'), takesAll('selective'), cameBack(email)], 'risky', 'bounces-later'],
    [email, [hosts, mailbox('accepted'), takesAll('selective'), cameBack('a@b', 'c@d')], 'risky', 'bounces-later'],
    [email, [hosts, mailbox('accepted'), takesAll('selective'), cameBack('a@b')], 'valid', 'accepted'],
  ])('%s %#: %s', (address, facts, verdict, reason) => {
    const { done } = judge(address, known(...(facts as [Question, Answer][])));
    expect(done).toMatchObject({ verdict, reason });
  });

  // An outage is no verdict: the same question waits, and says why.
  test.each([
    [[[{ kind: 'mail-host', domain }, { state: 'failed' }]], 'mail-host', 'lookup-failed'],
    [[hosts, mailbox('try-later')], 'mailbox', 'try-later'],
    [[hosts, mailbox('no-answer')], 'mailbox', 'no-answer'],
    [[hosts, mailbox('accepted'), takesAll('no-answer')], 'catch-all', 'no-answer'],
  ])('silence %#: %s', (facts, kind, reason) => {
    const judged = judge(email, known(...(facts as [Question, Answer][])));
    expect(judged).toMatchObject({ ask: { kind }, silent: reason, done: { verdict: 'unknown', reason } });
  });

  test('what is not known is asked in this order: domain, mailbox, catch-all', () => {
    expect(judge(email, known()).ask).toEqual({ kind: 'mail-host', domain });
    expect(judge(email, known(hosts)).ask).toEqual({ kind: 'mailbox', email });
    expect(judge(email, known(hosts, mailbox('accepted'))).ask).toEqual({ kind: 'catch-all', domain });
  });
});

const named = (firstName: string, lastName: string, middleName = '') => ({
  ...emptyPerson(),
  firstName,
  middleName,
  lastName,
  domain,
});
const maren = named('Maren', 'Oakhill', 'Ada');

describe('address patterns', () => {
  test('what a pattern makes is told by the same pattern', () => {
    for (const pattern of PATTERNS) expect(howMade(`${localPart(pattern, maren)}@${domain}`, maren)).toBe(pattern);
    expect(localPart('first.last', named('Anne-Marie', 'O’Connor Núñez'))).toBe('anne.oconnornunez');
    expect(howMade(`maren.oakhill2@${domain}`, maren)).toBe('first.last');
    expect(howMade(`zz77@${domain}`, maren)).toBe('other');
  });

  test('particles, hyphens, umlauts and short forms are written in several ways', () => {
    const made = (first: string, last: string) =>
      localParts(named(first, last), [{ pattern: 'first.last', share: 1 }]).map(({ local }) => local);
    expect(made('Jörg', 'van den Berg').slice(0, 4).sort()).toEqual([
      'joerg.berg',
      'joerg.vandenberg',
      'jorg.berg',
      'jorg.vandenberg',
    ]);
    expect(made('Anne-Marie', 'Smith')).toEqual(
      expect.arrayContaining(['anne.smith', 'annemarie.smith', 'anne-marie.smith']),
    );
    expect(made('William', 'Hebden')).toContain('bill.hebden');
    const chances = localParts(named('Jörg', 'van den Berg'), [{ pattern: 'first.last', share: 1 }]);
    expect(chances.reduce((sum, { chance }) => sum + chance, 0)).toBeCloseTo(1, 10);
  });

  test('names cut to some letters are told where a firm is seen to do so, and tried elsewhere once many do', () => {
    const idris = named('Idris', 'Pennington');
    expect(howMade(`marenoa@${domain}`, maren)).toBe('cut fl 5 2');
    expect(howMade(`oakma@${domain}`, maren)).toBe('cut lf 3 2');
    // Plainly whole names, or too few letters.
    expect([howMade(`marenoakhill@${domain}`, maren), howMade(`mao@${domain}`, maren)]).toEqual(['firstlast', 'other']);
    const patterns = learningPatterns();
    const bestAt = (at: string) => localParts(idris, patterns.ranked(at))[0]!.local;
    patterns.learn(`marenoa@${domain}`, maren);
    expect([bestAt(domain), bestAt('elsewhere.example')]).toEqual(['idrispe', 'idris.pennington']);
    expect(patterns.ranked('elsewhere.example').some(({ pattern }) => pattern === 'cut fl 5 2')).toBe(true);
    patterns.unlearn(`marenoa@${domain}`, maren);
    expect(patterns.ranked(domain).reduce((sum, { share }) => sum + share, 0)).toBeLessThanOrEqual(1);
    for (let n = 0; n < 200; n++) patterns.learn(`marenoa@firm${n}.example`, maren);
    expect(bestAt('elsewhere.example')).toBe('idrispe');
  });

  test('a domain’s own addresses outweigh what is usual; country and size come between; shares stay shares', () => {
    const patterns = learningPatterns();
    expect(patterns.ranked(domain)[0]!.pattern).toBe('first.last');
    patterns.learn(`moakhill@${domain}`, maren);
    patterns.learn(`tlindqvist@${domain}`, named('Tobias', 'Lindqvist'));
    expect(patterns.ranked(domain)[0]).toMatchObject({ pattern: 'flast', seen: 2 });
    expect(patterns.ranked('elsewhere.example')[0]!.pattern).toBe('first.last');
    expect(patterns.ranked(domain).reduce((sum, { share }) => sum + share, 0)).toBeLessThanOrEqual(1);
    for (let n = 0; n < 60; n++) patterns.learn(`oakhill@firm${n}.example`, { ...maren, country: 'SE' });
    expect(patterns.ranked('new.example', { country: 'SE', headcount: '' })[0]!.pattern).toBe('last');
    expect(patterns.ranked('new.example', { country: 'GB', headcount: '' })[0]!.pattern).not.toBe('flast');
    patterns.unlearn(`moakhill@${domain}`, maren);
    expect(patterns.ranked(domain)[0]).toMatchObject({ seen: 1 });
  });

  test('what other jobs know counts as one’s own', () => {
    const patterns = learningPatterns((place) => new Map(place === domain ? [['lastf', 3]] : []));
    expect(patterns.ranked(domain)[0]).toMatchObject({ pattern: 'lastf', seen: 3 });
  });

  test('an address that fits two is each one’s with half the chance; one that is taken gets a figure', () => {
    const ranked = [
      { pattern: 'first' as const, share: 0.6 },
      { pattern: 'first.last' as const, share: 0.4 },
    ];
    const two = [maren, named('Maren', 'Venn')];
    const emails = (isTaken: (email: string) => boolean) =>
      candidatesFor(
        two[0]!,
        ranked,
        claimsOf(two, () => PATTERNS),
        isTaken,
      ).map((one) => one.email.split('@')[0]);
    expect(emails(() => false)).toEqual(['maren.oakhill', 'maren']);
    expect(emails((one) => one.startsWith('maren.oakhill@'))).toEqual([
      'maren',
      'maren.oakhill2',
      'maren.oakhill1',
      'maren.oakhill3',
    ]);
  });
});

describe('looking for an address', () => {
  const person = { ...emptyPerson(), firstName: 'Maren', lastName: 'Oakhill', domain };
  const options = appendEmailOptions.parse({ candidates: 2, finders: ['lantern', 'second'] });
  const making = { patterns: learningPatterns(), claims: () => 1, isTaken: () => false };
  const ask = (...facts: Parameters<typeof known>) => findEmail(person, making, known(...facts), options);
  const none = [mailbox('no-mailbox'), mailbox('no-mailbox', `moakhill@${domain}`)] as const;
  const asked = (finder: string) =>
    ({ kind: 'finder', finder, firstName: 'Maren', lastName: 'Oakhill', domain }) as const;

  test('a person without a whole name or a domain cannot be looked for', () => {
    for (const lacking of [{ firstName: 'M.' }, { lastName: '' }, { domain: '' }])
      expect(findEmail({ ...person, ...lacking }, making, known(), options)).toEqual({
        none: 'no-name-or-domain',
      });
  });

  test('a finder is asked after the candidates, the next when the first has nothing, and paid after verifying', () => {
    expect(ask(hosts, takesAll('selective'))).toMatchObject({ ask: { kind: 'mailbox', email } });
    expect(ask(hosts, takesAll('selective'), ...none)).toMatchObject({ ask: asked('lantern') });
    const nothing: [Question, AnswerOf<'finder'>] = [asked('lantern'), { email: null, lookup: 'a', priceCents: 15 }];
    expect(ask(hosts, takesAll('selective'), ...none, nothing)).toMatchObject({ ask: asked('second') });
    const odd = `mo7@${domain}`;
    const offer: [Question, AnswerOf<'finder'>] = [asked('second'), { email: odd, lookup: 'b', priceCents: 9 }];
    expect(ask(hosts, takesAll('selective'), ...none, nothing, offer)).toMatchObject({
      ask: { kind: 'mailbox', email: odd },
    });
    const verified = [hosts, takesAll('selective'), ...none, nothing, offer, mailbox('accepted', odd)] as const;
    const purchase = { kind: 'purchase', finder: 'second', lookup: 'b', priceCents: 9 } as const;
    expect(ask(...verified)).toMatchObject({ ask: purchase });
    expect(ask(...verified, [purchase, { bought: true }])).toMatchObject({ email: odd, via: 'second' });
  });

  test('a question is the same in other capitals, with accents, hyphens and spaces', () => {
    const key = (firstName: string, lastName: string) => questionKey({ ...asked('lantern'), firstName, lastName });
    expect(key('Zoë', 'Ó Briain-Núñez')).toBe(key('ZOE', 'o briain nunez'));
    expect(key('Zoë', 'Briain')).not.toBe(key('Zoe', 'Brian'));
  });

  test('who was not found is asked about again once that is long ago; who was found by anybody stays found', () => {
    const nothing = (finder: string): [Question, AnswerOf<'finder'>] => [
      asked(finder),
      { email: null, lookup: finder, priceCents: 15, pays: 'question' },
    ];
    const before = [hosts, takesAll('selective'), ...none, nothing('lantern')] as const;
    const look = (noneMs: number, ...facts: [Question, Answer][]) =>
      findEmail(person, making, knownFor(noneMs, ...before, ...facts), options);
    expect(look(2, nothing('second'))).toEqual({ none: 'no-address-found' });
    expect(look(1, nothing('second'))).toMatchObject({ ask: asked('lantern'), stale: { askedAt: 1 } });
    const odd = `mo7@${domain}`;
    const found: [Question, AnswerOf<'finder'>] = [
      asked('second'),
      { email: odd, lookup: 'b', priceCents: 9, pays: 'question' },
    ];
    expect(look(1, found, mailbox('accepted', odd))).toMatchObject({ email: odd });
  });

  test('what somebody else has is not theirs, whoever finds it; alternatives stay with whatever was found', () => {
    const isTaken = (one: string) => one === email;
    const without = (...facts: Parameters<typeof known>) =>
      findEmail(person, { ...making, isTaken }, known(...facts), options);
    expect(without(hosts, takesAll('selective'))).toMatchObject({ ask: { email: `moakhill@${domain}` } });
    const taken: [Question, AnswerOf<'finder'>] = [asked('lantern'), { email, lookup: 'a', priceCents: 15 }];
    const others = [`moakhill@${domain}`, `maren@${domain}`].map((one) => mailbox('no-mailbox', one));
    expect(without(hosts, takesAll('selective'), ...others, taken)).toMatchObject({ ask: asked('second') });
    const found = ask(hosts, takesAll('selective'), mailbox('accepted'));
    expect(found).toMatchObject({
      email,
      alternatives: [`moakhill@${domain}`, `maren@${domain}`, `m.oakhill@${domain}`],
    });
  });

  test('a candidate that is not worth the question is not asked', () => {
    const few = { ...options, leastChance: 0.3 };
    const asks = findEmail(person, making, known(hosts, takesAll('selective'), mailbox('no-mailbox')), few);
    expect(asks).toMatchObject({ ask: asked('lantern') });
  });

  test('an address that does not verify is not paid', () => {
    const wrong: [Question, AnswerOf<'finder'>] = [
      asked('lantern'),
      { email: `x@${domain}`, lookup: 'a', priceCents: 15 },
    ];
    const empty: [Question, AnswerOf<'finder'>] = [asked('second'), { email: null, lookup: 'b', priceCents: 9 }];
    expect(ask(hosts, takesAll('selective'), ...none, wrong, mailbox('no-mailbox', `x@${domain}`), empty)).toEqual({
      none: 'no-address-found',
    });
  });
});
