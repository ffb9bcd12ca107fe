import {
  appendPhone,
  isScreened,
  merge,
  mergeKey,
  positionOf,
  sift,
  type Contact,
  type KnownCompany,
  type Link,
  type Merged,
  type Outcome,
  type Sieve,
} from '@sieve/core';
import type { StepCount, Summary } from '@sieve/contract';
import type { RunHandler } from '../runs/context';
import { breathe } from '../threads/breathe';
import { MOST_KEPT_ROWS, type Kept } from './kept';
import { loadSift, type LoadedSift } from './load-sift';
import type { StoredCompany, StoredPair } from './outcomes';
import { showOutcome } from './show-outcome';
import { STOP_PASSED, type StoredContact } from './stored-contact';
import type { SourcedRow } from './tidied-rows';
import { reasonOf } from './reason-of';

/** Sifts a job: computes the outcome and shows it. */
export const runSift: RunHandler<'sift'> = async ({ db, jobId, settings, now, kept, progress, signal }) => {
  const onTidied = (done: number, total: number) => {
    progress(done, total * 2, 'tidying');
    signal.throwIfAborted();
  };
  const input = await loadSift(db, jobId, { lists: settings.lists, now: now(), kept, onTidied });
  const total = input.rows.length;
  progress(total, total * 2, 'matching');
  const outcome = sift(input, mergedOf(input, kept));
  await breathe();
  signal.throwIfAborted();
  await showOutcome(
    db,
    jobId,
    {
      contacts: storedContacts(outcome.contacts, input),
      companies: storedCompanies(outcome.companies, input),
      pairs: storedPairs(outcome.match, input.rows),
      summary: summarise(outcome, input),
      weights: outcome.match.weights,
    },
    { kept, signal, onWritten: (share) => progress(total + Math.floor(total * share), total * 2, 'writing') },
  );
  return { code: 'sifted', contacts: outcome.contacts.length, companies: outcome.companies.length };
};

function mergedOf(input: LoadedSift, kept: Kept): Merged {
  const key = mergeKey(input);
  if (kept.merged?.of === input.rows && kept.merged.key === key) return kept.merged.merged;
  kept.merged = null;
  const merged = merge(input);
  if (input.rows.length <= MOST_KEPT_ROWS) kept.merged = { of: input.rows, key, merged };
  return merged;
}

/** The contacts with what their records bring. */
function* storedContacts(contacts: readonly Contact[], { rows, sources, sieve }: LoadedSift): Generator<StoredContact> {
  const byRecord = new Map(rows.map((row) => [row.recordId, row]));
  const positions = new Map(sieve.map(({ id }, position) => [id, position]));
  for (const {
    id,
    recordIds,
    person,
    extra,
    from,
    mergeChance,
    added,
    firmKey,
    firm,
    judgement,
    phone,
    fate,
  } of contacts) {
    const own = recordIds.map((recordId) => byRecord.get(recordId)!);
    yield {
      id,
      recordIds,
      person,
      extra,
      from,
      sources: own.length === 1 ? sources.get(own[0]!.sourceId)! : namesOf(own, sources),
      mergeChance,
      via: added.email?.via ?? (person.email ? 'given' : ''),
      alternatives: added.email?.alternatives ?? [],
      found: foundIn(added),
      filledBy: filledIn(added),
      firmKey,
      firm,
      phone,
      verdict: judgement?.verdict ?? '',
      reason: judgement?.reason ?? '',
      askedAt: judgement?.askedAt ?? 0,
      stop: fate.step === null ? STOP_PASSED : positions.get(fate.step)!,
      state: fate.state,
      code: fate.code,
      why: fate.why,
    };
  }
}

const foundIn = (added: Contact['added']): StoredContact['found'] =>
  Object.fromEntries(Object.entries(added).flatMap(([field, { sure }]) => (sure === undefined ? [] : [[field, sure]])));

const filledIn = (added: Contact['added']): StoredContact['filledBy'] =>
  Object.fromEntries(Object.entries(added).flatMap(([field, { via }]) => (field === 'email' ? [] : [[field, via]])));

const namesOf = (own: readonly { sourceId: number }[], sources: LoadedSift['sources']) =>
  [...new Set(own.map(({ sourceId }) => sources.get(sourceId)!))].join(' + ');

function storedCompanies(companies: readonly KnownCompany[], { companyRows, sources }: LoadedSift): StoredCompany[] {
  const byRecord = new Map(companyRows.map((row) => [row.recordId, row]));
  return companies.map(({ id, company, extra, recordIds }) => ({
    id,
    company,
    extra,
    sources: namesOf(
      recordIds.map((recordId) => byRecord.get(recordId)!),
      sources,
    ),
    records: recordIds.length,
  }));
}

function storedPairs({ doubtful, reasons }: Outcome['match'], rows: readonly SourcedRow[]): StoredPair[] {
  const idOf = (i: number) => rows[i]!.recordId;
  const toStored =
    (merged: 0 | 1) =>
    (link: Link): StoredPair => [idOf(link.a), idOf(link.b), link.chance, merged, link.pattern];
  // In the order of their table, which is written so twice as fast.
  return [...doubtful.map(toStored(0)), ...[...new Set(reasons.values())].map(toStored(1))].sort(
    (p, q) => p[0] - q[0] || p[1] - q[1],
  );
}

/** The counts that the screens show, from the outcome itself. */
export function summarise({ contacts, companies, match }: Outcome, input: LoadedSift): Summary {
  const { rows, sieve, sources, facts, suppression } = input;
  const steps = countSteps(contacts, sieve);
  const verdicts: Summary['verdicts'] = { valid: 0, risky: 0, invalid: 0, unknown: 0, none: 0 };
  let nothingFound = 0;
  for (const contact of contacts) {
    if (!isScreened(contact, sieve)) continue;
    verdicts[contact.judgement?.verdict ?? 'none']++;
    if (contact.fate.state === 'aside' && contact.judgement === null) nothingFound++;
  }
  // Who waits for a phone has an address already, or needs none.
  const phones = sieve.find(({ kind }) => kind === appendPhone.kind)?.id;
  const waiting = steps.reduce((sum, { id, waits }) => (id === phones ? sum : sum + waits), 0);
  const judged = verdicts.valid + verdicts.risky + verdicts.invalid + verdicts.unknown + nothingFound;
  const rate = (verdicts.valid + 10) / (judged + 20);
  return {
    records: rows.length + input.companyRows.length,
    companies: companies.length,
    sources: sources.size,
    edits: rows.reduce((sum, { changes }) => sum + changes, 0),
    merged: rows.length - contacts.length,
    pairs: match.doubtfulCount,
    expectedError: match.expectedError,
    errorRange: match.errorRange,
    lines: match.curve.map(({ line, pairs, wrong }) => ({ line: rounded(line, 4), pairs, wrong: rounded(wrong, 2) })),
    mergeFrom: match.mergeFrom,
    taught: match.taught,
    steps,
    verdicts,
    likelyValid: verdicts.valid + Math.round(waiting * rate),
    elsewhere: input.elsewhereVersion,
    freshUntil: earliest([facts.freshUntil(), ...[...suppression.values()].map(({ until }) => until)]),
  };
}

const earliest = (times: readonly (number | null)[]): number | null =>
  times.reduce((first, time) => (time !== null && (first === null || time < first) ? time : first), null);

const rounded = (n: number, digits: number) => Number(n.toFixed(digits));

/** How many came to each step, and what became of them there; reasons by code, or by rule where a step has rules. */
function countSteps(contacts: readonly Contact[], sieve: Sieve): StepCount[] {
  const stopped = sieve.map(({ id }): StepCount => ({
    id,
    came: 0,
    pass: 0,
    aside: 0,
    look: 0,
    waits: 0,
    why: {},
  }));
  for (const { fate } of contacts) {
    if (fate.step === null) continue;
    const step = stopped[positionOf(sieve, fate.step)]!;
    step[fate.state]++;
    const why = reasonOf(fate);
    step.why[why] = (step.why[why] ?? 0) + 1;
  }
  let came = contacts.length;
  for (const step of stopped) {
    step.came = came;
    came = step.pass = came - step.aside - step.look - step.waits;
  }
  return stopped;
}
