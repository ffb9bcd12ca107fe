import type { Weights } from '@sieve/core';
import type { Summary } from '@sieve/contract';
import type { Db } from '../db/open';
import { createOutcome, dropOutcome, hasOutcome, outcomeIndexes, outcomeWriter, type StoredPair } from '../db/outcomes';
import { toColumns, type ContactColumns, type StoredContact } from '../db/stored-contact';
import { breathe } from './breathe';

interface Details {
  summary: Summary;
  weights: Weights;
  signal: AbortSignal;
  /** Told the share that is written, 0 to 1. */
  onWritten: (share: number) => void;
}

/** So few changed rows are written over the shown outcome at once; more are written beside it, piece by piece. */
const FEW = 4000;
const CHUNK = 10_000;

/**
 * Makes an outcome the one that is shown. Whoever reads sees all of the old one or all of the new one; the one that was
 * shown before stays until the next, for those who are still reading it.
 *
 * @param contacts gives the contacts anew each time it is called
 */
export async function showOutcome(
  db: Db,
  jobId: number,
  contacts: () => Iterable<StoredContact>,
  pairs: readonly StoredPair[],
  details: Details,
): Promise<void> {
  const client = db.$client;
  const shown = client.prepare('SELECT outcome FROM jobs WHERE id = ?').pluck().get(jobId) as number;
  dropOthers(db, jobId, shown);
  const show = (outcome: number) =>
    client
      .prepare('UPDATE jobs SET outcome = ?, version = version + 1, weights = ?, summary = ? WHERE id = ?')
      .run(outcome, JSON.stringify(details.weights), JSON.stringify(details.summary), jobId);

  if (shown > 0 && hasOutcome(db.outcomes, shown)) {
    const writer = outcomeWriter(db.outcomes, shown);
    const change = fewChanges(writer, contacts(), pairs);
    if (change) {
      db.outcomes.transaction(() => {
        for (const id of change.oldContacts) writer.dropContact(id);
        for (const pair of change.oldPairs) writer.dropPair(pair);
        for (const { contact, columns } of change.newContacts) writer.addContact(contact, columns);
        change.newPairs.forEach(writer.addPair);
      })();
      show(shown);
      return;
    }
  }

  const next = client.prepare(`INSERT INTO outcomes (job_id) VALUES (?)`).run(jobId).lastInsertRowid as number;
  createOutcome(db.outcomes, next);
  const writer = outcomeWriter(db.outcomes, next);
  const indexes = outcomeIndexes(next);
  const total = Math.max(1, details.summary.records + pairs.length) * 2;
  let written = 0;
  const step = async (count: number, work: () => void) => {
    details.signal.throwIfAborted();
    db.outcomes.transaction(work)();
    details.onWritten((written += count) / total);
    await breathe();
  };
  for (const chunk of chunks(contacts()))
    await step(chunk.length, () => chunk.forEach((contact) => writer.addContact(contact)));
  await step(pairs.length, () => pairs.forEach(writer.addPair));
  for (const index of indexes) await step(total / 2 / indexes.length, () => db.outcomes.exec(index));
  show(next);
}

/** What differs from the outcome that is shown, or null when that is much. */
function fewChanges(
  shown: ReturnType<typeof outcomeWriter>,
  contacts: Iterable<StoredContact>,
  pairs: readonly StoredPair[],
) {
  const oldContacts = new Map(shown.contacts().map((columns) => [columns[0] as number, columns]));
  const newContacts: { contact: StoredContact; columns: ContactColumns }[] = [];
  for (const contact of contacts) {
    const columns = toColumns(contact);
    const old = oldContacts.get(contact.id);
    if (old && columns.every((value, i) => value === old[i])) oldContacts.delete(contact.id);
    else if (newContacts.push({ contact, columns }) > FEW) return null;
  }
  const oldPairs = new Map(shown.pairs().map((pair) => [pair.join(), pair]));
  const newPairs = pairs.filter((pair) => !oldPairs.delete(pair.join()));
  if (newContacts.length + newPairs.length + oldContacts.size + oldPairs.size > FEW) return null;
  return { oldContacts: oldContacts.keys(), oldPairs: oldPairs.values(), newContacts, newPairs };
}

function* chunks<T>(all: Iterable<T>): Generator<T[]> {
  let chunk: T[] = [];
  for (const one of all) {
    if (chunk.push(one) < CHUNK) continue;
    yield chunk;
    chunk = [];
  }
  if (chunk.length > 0) yield chunk;
}

/** Drops the outcomes of a job that are no longer shown, those of runs that were stopped included. */
function dropOthers(db: Db, jobId: number, shown: number): void {
  const others = db.$client
    .prepare('SELECT id FROM outcomes WHERE job_id = ? AND id <> ?')
    .pluck()
    .all(jobId, shown) as number[];
  for (const id of others) {
    dropOutcome(db.outcomes, id);
    db.$client.prepare('DELETE FROM outcomes WHERE id = ?').run(id);
  }
}
