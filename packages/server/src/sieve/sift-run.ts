import {
  merge,
  mergeKey,
  sift,
  STEP_KINDS,
  type Contact,
  type Link,
  type Merged,
  type Outcome,
  type StepKind,
} from '@sieve/core';
import type { StepCount, Summary } from '@sieve/contract';
import type { RunHandler } from '../runs/context';
import type { StoredPair } from './outcomes';
import type { StoredContact } from './stored-contact';
import { breathe } from '../threads/breathe';
import { loadSift, type LoadedSift } from './load-sift';
import { showOutcome } from './show-outcome';
import { MOST_KEPT_ROWS, type SourcedRow } from './tidied-rows';

/** Order of the step a contact stopped at; a contact that passed them all has the last. */
export const STOP_PASSED = 9;
export const stopOf = (step: StepKind | null): number => (step === null ? STOP_PASSED : STEP_KINDS.indexOf(step));

/** Sifts a job: computes the outcome and shows it. */
export const runSift: RunHandler = async ({ db, jobId, progress, signal }) => {
  const onTidied = (done: number, total: number) => {
    progress(done, total * 2, 'tidying');
    signal.throwIfAborted();
  };
  const input = await loadSift(db, jobId, onTidied);
  const total = input.rows.length;
  progress(total, total * 2, 'matching and screening');
  const outcome = sift(input, mergedOf(input));
  await breathe();
  signal.throwIfAborted();
  const summary = summarise(outcome, input.rows, input.sources.size);
  await showOutcome(db, jobId, () => storedContacts(outcome.contacts, input), storedPairs(outcome.match, input.rows), {
    summary,
    weights: outcome.match.weights,
    signal,
    onWritten: (share) => progress(total + Math.floor(total * share), total * 2, 'writing'),
  });
  return `${outcome.contacts.length.toLocaleString('en')} contacts`;
};

/** The last merge of this thread: most decisions do not touch it. */
let last: { rows: readonly SourcedRow[]; key: string; merged: Merged } | null = null;

function mergedOf(input: LoadedSift): Merged {
  const key = mergeKey(input);
  if (last?.rows === input.rows && last.key === key) return last.merged;
  last = null;
  const merged = merge(input);
  if (input.rows.length <= MOST_KEPT_ROWS) last = { rows: input.rows, key, merged };
  return merged;
}

/** The contacts with what their records bring. */
function* storedContacts(contacts: readonly Contact[], { rows, sources }: LoadedSift): Generator<StoredContact> {
  const byRecord = new Map(rows.map((row) => [row.recordId, row]));
  for (const { id, recordIds, person, from, mergeChance, appended, judgement, fate } of contacts) {
    const own = recordIds.map((recordId) => byRecord.get(recordId)!);
    const [first] = own as [SourcedRow];
    const single = own.length === 1;
    yield {
      id,
      recordIds,
      person: appended ? { ...person, email: appended.email } : person,
      extra: single
        ? first.extra
        : (Object.assign({}, ...own.map(({ extra }) => extra).reverse()) as Record<string, string>),
      from,
      sources: [...new Set(own.map(({ sourceId }) => sources.get(sourceId)!))].join(' + '),
      mergeChance,
      via: appended?.via ?? (person.email ? 'given' : ''),
      alternatives: appended?.alternatives ?? [],
      verdict: judgement?.verdict ?? '',
      reason: judgement?.reason ?? '',
      askedAt: judgement?.askedAt ?? 0,
      stop: stopOf(fate.step),
      state: fate.state,
      code: fate.code,
      why: fate.why,
    };
  }
}

function storedPairs({ doubtful, reasons }: Outcome['match'], rows: readonly SourcedRow[]): StoredPair[] {
  const idOf = (i: number) => rows[i]!.recordId;
  const toStored =
    (merged: 0 | 1) =>
    (link: Link): StoredPair => [idOf(link.a), idOf(link.b), link.chance, merged];
  // In the order of their table, which is written so twice as fast.
  return [...doubtful.map(toStored(0)), ...[...new Set(reasons.values())].map(toStored(1))].sort(
    (p, q) => p[0] - q[0] || p[1] - q[1],
  );
}

/** The counts that the screens show, from the outcome itself. */
export function summarise({ contacts, match }: Outcome, rows: readonly SourcedRow[], sources: number): Summary {
  const steps = Object.fromEntries(
    STEP_KINDS.map((step) => [step, { came: 0, pass: 0, aside: 0, look: 0, waits: 0 }]),
  ) as Record<StepKind, StepCount>;
  const verdicts: Summary['verdicts'] = { valid: 0, risky: 0, invalid: 0, unknown: 0, none: 0 };
  const rules: Record<string, number> = {};
  for (const { fate, judgement } of contacts) {
    const stop = stopOf(fate.step);
    for (const [order, step] of STEP_KINDS.entries()) {
      if (order > stop) break;
      steps[step].came++;
      if (order === stop) steps[step][fate.state]++;
      else steps[step].pass++;
    }
    if (stop >= stopOf('append')) verdicts[judgement?.verdict ?? 'none']++;
    if (fate.step === 'screen') {
      const key = 'rule' in fate.why ? `rule-${fate.why['rule']}` : fate.code;
      rules[key] = (rules[key] ?? 0) + 1;
    }
  }
  const waiting = steps.append.waits + steps.verify.waits;
  const judged = verdicts.valid + verdicts.risky + verdicts.invalid + verdicts.unknown + steps.append.aside;
  const rate = (verdicts.valid + 10) / (judged + 20);
  return {
    records: rows.length,
    sources,
    edits: rows.reduce((sum, { changes }) => sum + changes, 0),
    merged: rows.length - contacts.length,
    pairs: match.doubtfulCount,
    expectedError: match.expectedError,
    steps,
    verdicts,
    rules,
    likelyValid: verdicts.valid + Math.round(waiting * rate),
  };
}
