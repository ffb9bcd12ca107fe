import { judge } from '../../mail/judge';
import { emptyPerson } from '../../model/person';
import {
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
import { localPart, patternOf, PATTERNS } from './patterns';

const keyOf = (q: Question) => `${q.kind} ${answeredBy(q)} ${questionKey(q)}`;

/** Answers by question; what is not answered has to be asked. */
function known(...answers: [Question, Answer][]) {
  const byKey = new Map(answers.map(([q, answer]) => [keyOf(q), { answer, askedAt: 1 }]));
  const facts = ((q: Question) => {
    const fact = byKey.get(keyOf(q));
    return newest(q, fact ? [fact] : [], 2, 90);
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

describe('address patterns', () => {
  test('what a pattern makes is told by the same pattern', () => {
    for (const pattern of PATTERNS) {
      const local = localPart(pattern, 'Maren', 'Oakhill');
      expect(patternOf(`${local}@${domain}`, 'Maren', 'Oakhill')).toBe(pattern);
    }
    expect(localPart('first.last', 'Anne-Marie', 'O’Connor Núñez')).toBe('anne.oconnornunez');
    expect(patternOf(`mo77@${domain}`, 'Maren', 'Oakhill')).toBeUndefined();
  });

  test('a domain’s own addresses outweigh what is usual, and shares stay shares', () => {
    const patterns = learningPatterns();
    expect(patterns.ranked(domain)[0]!.pattern).toBe('first.last');
    patterns.learn(`moakhill@${domain}`, 'Maren', 'Oakhill');
    patterns.learn(`tlindqvist@${domain}`, 'Tobias', 'Lindqvist');
    expect(patterns.ranked(domain)[0]).toMatchObject({ pattern: 'flast', seen: 2 });
    expect(patterns.ranked('elsewhere.example')[0]!.pattern).toBe('first.last');
    expect(patterns.ranked(domain).reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 1);
  });
});

describe('looking for an address', () => {
  const person = { ...emptyPerson(), firstName: 'Maren', lastName: 'Oakhill', domain };
  const options = appendEmailOptions.parse({ candidates: 2, finders: ['lantern', 'second'] });
  const ask = (...facts: Parameters<typeof known>) => findEmail(person, learningPatterns(), known(...facts), options);
  const none = [mailbox('no-mailbox'), mailbox('no-mailbox', `moakhill@${domain}`)] as const;
  const asked = (finder: string) =>
    ({ kind: 'finder', finder, firstName: 'Maren', lastName: 'Oakhill', domain }) as const;

  test('a person without a whole name or a domain cannot be looked for', () => {
    for (const lacking of [{ firstName: 'M.' }, { lastName: '' }, { domain: '' }])
      expect(findEmail({ ...person, ...lacking }, learningPatterns(), known(), options)).toEqual({
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
