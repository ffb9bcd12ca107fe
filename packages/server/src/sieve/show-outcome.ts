import type { Weights } from '@sieve/core';
import type { Summary } from '@sieve/contract';
import type { Db } from '../db/open';
import { createOutcome, dropOutcome, hasOutcome, outcomeIndexes, outcomeWriter, type StoredPair } from './outcomes';
import { toColumns, type ContactColumns, type StoredContact } from './stored-contact';
import { breathe } from '../threads/breathe';
import { MOST_KEPT_ROWS } from './tidied-rows';

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

/** The contacts that this thread has last made shown, as columns by id, to save reading them. Others may have shown more since. */
let last: { of: string; contacts: Map<number, ContactColumns> } | null = null;

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
  const job = client.prepare('SELECT outcome, version FROM jobs WHERE id = ?').get(jobId) as {
    outcome: number;
    version: number;
  };
  const stateAt = (version: number) => [client.name, jobId, version].join();
  const show = (outcome: number, shownContacts: Map<number, ContactColumns>) => {
    client
      .prepare('UPDATE jobs SET outcome = ?, version = ?, weights = ?, summary = ? WHERE id = ?')
      .run(outcome, job.version + 1, JSON.stringify(details.weights), JSON.stringify(details.summary), jobId);
    last = shownContacts.size <= MOST_KEPT_ROWS ? { of: stateAt(job.version + 1), contacts: shownContacts } : null;
  };
  dropOthers(db, jobId, job.outcome);

  if (job.outcome > 0 && hasOutcome(db.outcomes, job.outcome)) {
    const writer = outcomeWriter(db.outcomes, job.outcome);
    const known = last?.of === stateAt(job.version) ? last.contacts : writer.contacts();
    last = null;
    const change = fewChanges(known, contacts(), writer.pairs(), pairs);
    if (change) {
      db.outcomes.transaction(() => {
        for (const id of change.oldContacts) {
          writer.removeContact(id);
          known.delete(id);
        }
        for (const { contact, columns } of change.newContacts) {
          writer.addContact(contact, columns);
          known.set(contact.id, columns);
        }
        for (const pair of change.oldPairs) writer.removePair(pair);
        change.newPairs.forEach(writer.addPair);
      })();
      show(job.outcome, known);
      return;
    }
  }

  last = null;
  const next = client.prepare(`INSERT INTO outcomes (job_id) VALUES (?)`).run(jobId).lastInsertRowid as number;
  createOutcome(db.outcomes, next);
  const writer = outcomeWriter(db.outcomes, next);
  const indexes = outcomeIndexes(next);
  const total = Math.max(1, details.summary.records + pairs.length) * 2;
  const shown = new Map<number, ContactColumns>();
  let written = 0;
  const step = async (count: number, work: () => void) => {
    details.signal.throwIfAborted();
    db.outcomes.transaction(work)();
    details.onWritten((written += count) / total);
    await breathe();
  };
  for (const chunk of chunks(contacts()))
    await step(chunk.length, () => {
      for (const contact of chunk) {
        const columns = toColumns(contact);
        writer.addContact(contact, columns);
        shown.set(contact.id, columns);
      }
    });
  await step(pairs.length, () => pairs.forEach(writer.addPair));
  for (const index of indexes) await step(total / 2 / indexes.length, () => db.outcomes.exec(index));
  show(next, shown);
}

/** What differs from the outcome that is shown, or null when that is much. */
function fewChanges(
  shown: ReadonlyMap<number, ContactColumns>,
  contacts: Iterable<StoredContact>,
  shownPairs: readonly StoredPair[],
  pairs: readonly StoredPair[],
) {
  const oldContacts = new Set(shown.keys());
  const newContacts: { contact: StoredContact; columns: ContactColumns }[] = [];
  for (const contact of contacts) {
    const columns = toColumns(contact);
    const old = shown.get(contact.id);
    if (old && columns.every((value, i) => value === old[i])) oldContacts.delete(contact.id);
    else if (newContacts.push({ contact, columns }) > FEW) return null;
  }
  const oldPairs = new Map(shownPairs.map((pair) => [pair.join(), pair]));
  const newPairs = pairs.filter((pair) => !oldPairs.delete(pair.join()));
  if (newContacts.length + newPairs.length + oldContacts.size + oldPairs.size > FEW) return null;
  return { oldContacts, oldPairs: oldPairs.values(), newContacts, newPairs };
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
