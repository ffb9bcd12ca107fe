import {
  fullName,
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
import type { RunHandler } from './context';
import { showOutcome, type ContactValues, type PairValues } from './show-outcome';
import { breathe } from './breathe';
import { loadSift, type LoadedSift } from './load-sift';
import { MOST_KEPT_ROWS, type SourcedRow } from './tidied-rows';

/** Order of the step a contact stopped at; a contact that passed them all has the last. */
export const STOP_PASSED = 9;
export const stopOf = (step: StepKind | null): number => (step === null ? STOP_PASSED : STEP_KINDS.indexOf(step));

/** Sifts a job: computes the outcome and shows it. */
export const runSift: RunHandler = async ({ db, jobId, helper, progress, signal }) => {
  const onTidied = (done: number, total: number) => {
    progress(done, total * 2, 'tidying');
    signal.throwIfAborted();
  };
  const input = await loadSift(db, jobId, onTidied, helper);
  const total = input.rows.length;
  progress(total, total * 2, 'matching and screening');
  const outcome = sift(input, mergedOf(input));
  await breathe();
  signal.throwIfAborted();
  const summary = summarise(outcome, input.rows, input.sources.size);
  await showOutcome(db, jobId, () => contactRows(outcome.contacts, input), pairRows(outcome.match, input.rows), {
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

/** The contacts as rows of their table, in the order of CONTACT_COLUMNS without outcome and hash. */
function* contactRows(contacts: readonly Contact[], { rows, sources }: LoadedSift): Generator<ContactValues> {
  const byRecord = new Map(rows.map((row) => [row.recordId, row]));
  for (const contact of contacts) {
    const { person, appended, judgement, fate } = contact;
    const own = contact.recordIds.map((id) => byRecord.get(id)!);
    const extra =
      own.length === 1
        ? own[0]!.row.extra
        : (Object.assign({}, ...own.map(({ row }) => row.extra).reverse()) as Record<string, string>);
    const email = appended?.email ?? person.email;
    yield [
      contact.id,
      JSON.stringify(contact.recordIds),
      contact.recordIds.length,
      person.firstName,
      person.lastName,
      person.title,
      person.company,
      person.city,
      email,
      JSON.stringify({ ...person, email }),
      JSON.stringify(extra),
      JSON.stringify(contact.from),
      [...new Set(own.map(({ sourceId }) => sources.get(sourceId)!))].join(' + '),
      contact.mergeChance,
      appended?.via ?? (person.email ? 'given' : ''),
      JSON.stringify(appended?.alternatives ?? []),
      judgement?.verdict ?? '',
      judgement?.reason ?? '',
      judgement?.askedAt ?? 0,
      stopOf(fate.step),
      fate.state,
      fate.code,
      JSON.stringify(fate.why),
      [fullName(person), person.title, person.company, email, person.city, person.region].join(' ').toLowerCase(),
    ];
  }
}

function pairRows({ doubtful, reasons }: Outcome['match'], rows: readonly SourcedRow[]): PairValues[] {
  const idOf = (i: number) => rows[i]!.recordId;
  const toRow =
    (merged: 0 | 1) =>
    (link: Link): PairValues => [idOf(link.a), idOf(link.b), link.chance, merged];
  return [...doubtful.map(toRow(0)), ...[...new Set(reasons.values())].map(toRow(1))];
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
    edits: rows.reduce((sum, { row }) => sum + row.changes.length, 0),
    merged: rows.length - contacts.length,
    pairs: match.doubtfulCount,
    expectedError: match.expectedError,
    steps,
    verdicts,
    rules,
    likelyValid: verdicts.valid + Math.round(waiting * rate),
  };
}
