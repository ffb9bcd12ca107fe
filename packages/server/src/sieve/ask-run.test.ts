import { questionKey, type Answer, type Question } from '@sieve/core';
import { settings } from '@sieve/contract';
import { decide } from '../decisions/commands';
import { creditsLeft, plansOf } from '../ledger/plans';
import { askedFor, brokenOff, spentCents, spentMeter } from '../ledger/store';
import type { Ask } from '../outside/ask';
import { keepFact } from '../outside/facts';
import { ServiceDown } from '../outside/wrap/service-down';
import { testContext, testDb, testJob, testSource } from '../testing/fixtures';
import { askHandler } from './ask-run';
import { nextValid } from './next-valid';
import { rowPage } from './rows';
import { runSift } from './sift-run';

const { db } = testDb();
const finder = {
  id: 'lantern',
  name: 'Lantern',
  url: 'http://127.0.0.1:1',
  key: '',
  priceCents: 15,
  perSecond: 100,
  simulated: true,
};

/** A job of people at firms of their own, whom only the finder knows. */
function jobOf(people: number, budgetCents: number): number {
  const jobId = testJob(db, 'Ask', budgetCents);
  const columns = [
    { name: 'Name', target: 'fullName' as const },
    { name: 'Web', target: 'website' as const },
  ];
  const rows = Array.from({ length: people }, (_, i) => [
    `Maren Oakhill${'abcdefghij'[i % 10]}${i > 9 ? 'x' : ''}`,
    `firm${jobId}-${i}.example`,
  ]);
  testSource(db, jobId, columns, rows);
  configure(jobId, { finders: ['lantern'] });
  return jobId;
}

const configure = (jobId: number, options: object) =>
  decide(
    db,
    jobId,
    'you',
    {
      kind: 'configure',
      step: { id: 'append-email', kind: 'append-email', on: true, options: { candidates: 1, ...options } },
    },
    0,
  );

/** A world in which no pattern is right and the finder always is; every answer takes a moment. */
function world() {
  const bought: string[] = [];
  const asked: Question[] = [];
  const ask = async (question: Question): Promise<Answer> => {
    asked.push(question);
    await new Promise((resolve) => setTimeout(resolve, 1));
    if (question.kind === 'mail-host') return { state: 'hosts', hosts: ['mx.example'] };
    if (question.kind === 'catch-all') return { state: 'selective' };
    if (question.kind === 'mailbox')
      return { state: question.email.startsWith('found') ? 'accepted' : 'no-mailbox', code: 250 };
    if (question.kind === 'purchase') {
      bought.push(question.lookup);
      return { bought: true };
    }
    if (question.kind === 'profiles') return { total: 0, people: [] };
    if (question.kind !== 'finder') throw new Error(`nobody asks for ${question.kind} here`);
    return { email: `found@${question.domain}`, lookup: question.domain, priceCents: 15 };
  };
  return { ask, bought, asked };
}

const append = (jobId: number, ask: Ask, signal = new AbortController().signal) =>
  askHandler(ask)(
    testContext<'ask'>(
      db,
      jobId,
      { kind: 'ask', step: 'append-email' },
      {
        settings: settings.parse({ finders: [finder, { ...finder, id: 'beacon' }], mail: { retryAfterSeconds: 0 } }),
        signal,
      },
    ),
  );
const asked = (more: object) => ({ code: 'asked', silent: 0, unaffordable: 0, down: [], ...more });

test('the budget is never passed, however many domains are asked at once', async () => {
  const job = jobOf(12, 100);
  const { ask, bought } = world();
  const result = await append(job, ask);
  expect(bought).toHaveLength(6);
  expect(spentCents(db, job)).toBe(90);
  expect(result).toEqual(asked({ contacts: 12, settled: 6, unaffordable: 6 }));
  await runSift(testContext<'sift'>(db, job, { kind: 'sift' }));
  const { got, next, leftCents } = nextValid(db, job, settings.parse({ finders: [finder] }), 1000);
  expect([got, leftCents]).toEqual([[{ who: 'lantern', count: 6, eachCents: 15 }], 10]);
  // Of 6 looked up and the usual 8, 2 came by patterns and 8 by finders.
  expect(next.map(({ who, eachCents }) => [who, eachCents])).toEqual([
    ['', 0],
    ['finders', 15],
  ]);
  expect(next.map(({ count }) => count.toFixed(2))).toEqual([(6 * 2) / 14, (6 * 8) / 14].map((n) => n.toFixed(2)));
});

test('what others set apart and do not spend is waited for: nothing affordable is left over', async () => {
  const job = jobOf(20, 45);
  const { ask, bought } = world();
  // Every other firm is one that the finder does not know; its answer takes longer.
  const half = async (question: Question): Promise<Answer> => {
    const odd = question.kind === 'finder' && Number(/-(\d+)\./.exec(question.domain)![1]) % 2 === 1;
    if (!odd) return ask(question);
    await new Promise((resolve) => setTimeout(resolve, 5));
    return { email: null, lookup: question.domain, priceCents: 15 };
  };
  const result = await append(job, half);
  expect([bought.length, spentCents(db, job)]).toEqual([3, 45]);
  expect(result).toMatchObject({ contacts: 20 });
  const { settled, unaffordable } = result as unknown as { settled: number; unaffordable: number };
  expect([settled + unaffordable, settled >= 3]).toEqual([20, true]);
});

test('what a run that was killed was perhaps charged stays set apart until it is asked again; what nobody needs any more does not', async () => {
  const job = jobOf(40, 45);
  const { ask, bought } = world();
  // The last one's address was being bought; nothing says whether it was.
  const last = `firm${job}-39.example`;
  const of = { finder: 'lantern', firstName: 'Maren', lastName: 'Oakhilljx', domain: last };
  keepFact(db, { kind: 'finder', ...of }, { email: `found@${last}`, lookup: last, priceCents: 15 }, 1, null);
  // Every record is a contact of its own, numbered in order.
  const ids = db.$client
    .prepare('SELECT id FROM records WHERE source_id IN (SELECT id FROM sources WHERE job_id = ?) ORDER BY id')
    .pluck()
    .all(job) as number[];
  const lost = { who: 'lantern', question: last, step: 'append-email', contact: ids.at(-1)!, cents: 15 };
  askedFor(db, job, lost);
  // One of somebody who waits no more, one of a step that is off, and one of a step that was not asked for now.
  askedFor(db, job, { ...lost, question: 'gone', contact: 999_999, cents: 30 });
  askedFor(db, job, { ...lost, question: 'off', step: 'append-phone', cents: 30 });
  const verifying = { ...lost, question: 'verify', step: 'verify', cents: 0 };
  askedFor(db, job, verifying);
  // While the finder is down nothing is known of it.
  const isDown = (question: Question): Promise<Answer> =>
    question.kind === 'purchase' || question.kind === 'finder'
      ? Promise.reject(new ServiceDown('lantern', 'it answered 500'))
      : ask(question);
  const upTo = await askHandler(isDown)(
    testContext<'ask'>(
      db,
      job,
      { kind: 'ask', step: 'append-email', upTo: ids[0]! },
      { settings: settings.parse({ finders: [finder], mail: { retryAfterSeconds: 0 } }) },
    ),
  );
  expect(upTo).toMatchObject({ contacts: 1, settled: 0 });
  expect(brokenOff(db, job)).toEqual(expect.arrayContaining([lost, verifying]));
  expect(brokenOff(db, job)).toHaveLength(2);
  expect(await append(job, ask)).toMatchObject({ contacts: 40, settled: 3, unaffordable: 37 });
  expect([bought.length, bought.includes(last), spentCents(db, job)]).toEqual([3, true, 45]);
  expect(brokenOff(db, job)).toEqual([verifying]);
});

test('a plan’s credits are used before money, for whom the budget leaves none too; then its price is paid', async () => {
  const job = jobOf(12, 30);
  const { ask, bought } = world();
  const plan = { credits: 4, cents: 600 };
  const withPlan = async (question: Question): Promise<Answer> => {
    const answer = await ask(question);
    return question.kind === 'purchase' && bought.length <= 4 ? { bought: true, cents: 0, credits: 1 } : answer;
  };
  const own = settings.parse({ finders: [{ ...finder, plan }], timeZone: 'UTC' });
  const run = () =>
    askHandler(withPlan)(
      testContext<'ask'>(db, job, { kind: 'ask', step: 'append-email' }, { settings: own, now: () => 5e11 }),
    );
  expect(await run()).toEqual(asked({ contacts: 12, settled: 6, unaffordable: 6 }));
  expect([bought.length, spentCents(db, job), creditsLeft(spentMeter(db), own, 'lantern', 5e11)]).toEqual([6, 30, 0]);
  expect(plansOf(db, '1985-11', { from: 4e11, to: 6e11 })).toEqual([{ who: 'lantern', ...plan, at: 5e11, used: 4 }]);
  // With the next month come its credits.
  const later = askHandler(ask)(
    testContext<'ask'>(db, job, { kind: 'ask', step: 'append-email' }, { settings: own, now: () => 5.03e11 }),
  );
  expect(await later).toMatchObject({ settled: 6 });
});

test('a finder is never paid more than its cap in a day; who waits for it is found on the next', async () => {
  const job = jobOf(12, 10_000);
  const { ask, bought } = world();
  const spent = spentCents(db, job);
  const on = (day: number) =>
    askHandler(ask)(
      testContext<'ask'>(
        db,
        job,
        { kind: 'ask', step: 'append-email' },
        {
          settings: settings.parse({ finders: [{ ...finder, capDayCents: 75, capMonthCents: 100 }], timeZone: 'UTC' }),
          now: () => Date.UTC(2027, 0, day, 12),
        },
      ),
    );
  const waits = { finder: 'Lantern', reason: 'its cap of the day is reached' };
  expect(await on(1)).toEqual(asked({ contacts: 12, settled: 5, down: [waits] }));
  expect([bought.length, spentCents(db, job) - spent]).toEqual([5, 75]);
  // The month leaves 25 for the second day.
  expect(await on(2)).toMatchObject({ settled: 1, down: [{ reason: 'its cap of the month is reached' }] });
  expect(spentCents(db, job) - spent).toBe(90);
  expect(await on(40)).toMatchObject({ settled: 5, down: [waits] });
});

test('a server that greylists is asked later, and holds nobody up meanwhile', async () => {
  const job = jobOf(40, 10_000);
  const { ask } = world();
  const first = new Map<string, number>();
  const order: string[] = [];
  const greylisting = async (question: Question): Promise<Answer> => {
    if (question.kind !== 'mailbox') return ask(question);
    const seen = (first.get(question.email) ?? 0) + 1;
    first.set(question.email, seen);
    order.push(`${question.email} ${seen}`);
    return seen === 1 ? { state: 'try-later', code: 451 } : ask(question);
  };
  const patient = settings.parse({ finders: [finder], mail: { retryAfterSeconds: 1 } });
  const input = { kind: 'ask', step: 'append-email' } as const;
  const result = await askHandler(greylisting)(testContext<'ask'>(db, job, input, { settings: patient }));
  expect(result).toEqual(asked({ contacts: 40, settled: 40 }));
  // More domains than are asked at once were begun before the first was asked again.
  expect(order.findIndex((asked) => asked.endsWith(' 2'))).toBeGreaterThanOrEqual(40);
});

test('a run that was stopped in the middle buys nothing twice', async () => {
  const job = jobOf(10, 10_000);
  const { ask, bought } = world();
  for (let stops = 0; stops < 30; stops++) {
    const stop = new AbortController();
    let left = 7;
    const until = async (question: Question) => {
      if (--left === 0) stop.abort(new Error('stopped'));
      return ask(question);
    };
    const ended = await append(job, until, stop.signal).then(
      () => true,
      () => false,
    );
    if (ended) break;
  }
  expect(new Set(bought).size).toBe(bought.length);
  expect([bought.length, spentCents(db, job)]).toEqual([10, 150]);
});

test('what was bought is not asked for again', async () => {
  const job = jobOf(3, 1000);
  const first = world();
  await append(job, first.ask);
  const again = world();
  await append(job, again.ask);
  expect([first.bought.length, again.asked.length]).toEqual([3, 0]);
});

test('a finder that is down is named; what waits for it is asked the next time', async () => {
  const job = jobOf(4, 1000);
  const { ask, bought } = world();
  const down = async (question: Question) => {
    if (question.kind === 'finder') throw new ServiceDown('lantern', 'it answered 500');
    return ask(question);
  };
  expect(await append(job, down)).toEqual(
    asked({ contacts: 4, settled: 0, down: [{ finder: 'Lantern', reason: 'it answered 500' }] }),
  );
  expect(await append(job, ask)).toEqual(asked({ contacts: 4, settled: 4 }));
  expect(bought).toHaveLength(4);
});

// Whatever is silent: the name server, the mail server before or after it said that it takes mail.
test.each([
  ['mail-host', { state: 'failed' }, 'lookup-failed'],
  ['catch-all', { state: 'no-answer' }, 'no-answer'],
  ['mailbox', { state: 'try-later', code: 451 }, 'try-later'],
] as const)(
  'while %s says nothing nobody is set aside, and asking again completes exactly those',
  async (kind, silence, reason) => {
    const job = jobOf(5, 1000);
    const { ask, bought } = world();
    const outage = async (question: Question) => (question.kind === kind ? silence : ask(question));
    expect(await append(job, outage)).toEqual(asked({ contacts: 5, settled: 0, silent: 5 }));
    await runSift(testContext<'sift'>(db, job, { kind: 'sift' }));
    const rows = (fate: 'waits' | 'aside') =>
      rowPage(db, job, { step: 'append-email', fate, q: '', sort: 'id', desc: false, offset: 0, limit: 100 }).rows;
    expect(rows('aside')).toEqual([]);
    expect(rows('waits').map(({ fate }) => [fate.code, fate.why['reason']])).toEqual(
      Array(5).fill(['no-answer-yet', reason]),
    );
    expect(bought).toEqual([]);
    expect(await append(job, ask)).toEqual(asked({ contacts: 5, settled: 5 }));
    expect(bought).toHaveLength(5);
  },
);

/** Two services, one that charges for questions and one for answers, which keep a bill: what comes again under its name is charged once. */
function sellers() {
  const bill = new Map<string, number>();
  const ask: Ask = async (question, _signal, stale = null) => {
    if (question.kind !== 'finder') return world().ask(question);
    await new Promise((resolve) => setTimeout(resolve, 1));
    const [pays, priceCents] = question.finder === 'lantern' ? (['question', 3] as const) : (['answer', 7] as const);
    const email = question.finder === 'lantern' ? null : `found@${question.domain}`;
    if (pays === 'question' || email)
      bill.set(`${questionKey(question)} ${question.finder} ${stale?.askedAt ?? 0}`, priceCents);
    return { email, lookup: question.domain, priceCents, pays };
  };
  return { ask, cents: () => [...bill.values()].reduce((sum, cents) => sum + cents, 0) };
}

test('killed 200 times between an answer and its charge, what the services bill is what the ledger holds', async () => {
  const job = jobOf(15, 100_000);
  configure(job, { finders: ['lantern', 'beacon'] });
  const { ask, cents } = sellers();
  let kills = 0;
  for (let ended = false; !ended && kills <= 200;) {
    // The answer is there, and the process that would write it is gone.
    const gone = new AbortController();
    let left = kills % 8 === 0 ? 2 : 1;
    const killed: Ask = async (question, signal, stale) => {
      const answer = await ask(question, signal, stale);
      if (question.kind === 'finder' && kills < 200 && --left === 0) gone.abort(new Error('killed'));
      gone.signal.throwIfAborted();
      return answer;
    };
    ended = await append(job, killed, gone.signal).then(
      () => true,
      () => false,
    );
    if (!ended) kills++;
  }
  expect(kills).toBe(200);
  expect([cents(), spentCents(db, job)]).toEqual([150, 150]);
}, 120_000);
