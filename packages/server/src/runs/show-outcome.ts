import { hash } from 'node:crypto';
import type { Weights } from '@sieve/core';
import type { Summary } from '@sieve/contract';
import type { Db } from '../db/open';
import { breathe } from './breathe';

/** A contact's columns from `id` on, without the hash. */
export type ContactValues = [id: number, ...rest: (string | number)[]];
export type PairValues = [a: number, b: number, chance: number, merged: 0 | 1];

interface Details {
  summary: Summary;
  weights: Weights;
  signal: AbortSignal;
  /** Told the share that is written, 0 to 1. */
  onWritten: (share: number) => void;
}

const COLUMNS =
  'outcome, hash, id, record_ids, records, first_name, last_name, title, company, city, email, person, extra, value_from, sources, merge_chance, via, alternatives, verdict, reason, asked_at, stop, state, code, why, search';
const INSERT_CONTACT = `INSERT INTO contacts (${COLUMNS}) VALUES (${COLUMNS.replace(/\w+/g, '?')})`;
const INSERT_PAIR = 'INSERT INTO pairs (outcome, a, b, chance, merged) VALUES (?, ?, ?, ?, ?)';

/** So few changed rows are written over the shown outcome at once; more are written beside it, piece by piece. */
const FEW = 4000;
const CHUNK = 4000;

/**
 * Makes an outcome the one that is shown. Whoever reads sees all of the old one or all of the new one, and no other writer
 * waits for long.
 *
 * @param contacts gives the rows anew each time it is called
 */
export async function showOutcome(
  db: Db,
  jobId: number,
  contacts: () => Iterable<ContactValues>,
  pairs: readonly PairValues[],
  details: Details,
): Promise<void> {
  const client = db.$client;
  const shown = client.prepare('SELECT outcome FROM jobs WHERE id = ?').pluck().get(jobId) as number;
  const insertRow = client.prepare(INSERT_CONTACT);
  const insertPair = client.prepare(INSERT_PAIR);
  const finish = (outcome: number) =>
    client
      .prepare('UPDATE jobs SET outcome = ?, version = version + 1, weights = ?, summary = ? WHERE id = ?')
      .run(outcome, JSON.stringify(details.weights), JSON.stringify(details.summary), jobId);

  const change = shown > 0 && fewChanges(db, shown, contacts(), pairs);
  if (change) {
    const dropRow = client.prepare('DELETE FROM contacts WHERE outcome = ? AND id = ?');
    const dropPair = client.prepare('DELETE FROM pairs WHERE outcome = ? AND a = ? AND b = ?');
    client
      .transaction(() => {
        for (const id of change.oldRows) dropRow.run(shown, id);
        for (const [a, b] of change.oldPairs) dropPair.run(shown, a, b);
        for (const { values, hash } of change.newRows) insertRow.run(shown, hash, ...values);
        for (const pair of change.newPairs) insertPair.run(shown, ...pair);
        finish(shown);
      })
      .immediate();
    return;
  }

  const next = client.prepare(`INSERT INTO outcomes (job_id) VALUES (?)`).run(jobId).lastInsertRowid as number;
  const total = details.summary.records + pairs.length;
  let written = 0;
  const write = async <T>(all: Iterable<T>, one: (row: T) => void) => {
    for (const chunk of chunks(all)) {
      details.signal.throwIfAborted();
      client.transaction(() => chunk.forEach(one)).immediate();
      details.onWritten((written += chunk.length) / total);
      await breathe();
    }
  };
  await write(contacts(), (values) => insertRow.run(next, hashOf(values), ...values));
  await write(pairs, (pair) => insertPair.run(next, ...pair));
  finish(next);
  await dropOthers(db, jobId, next);
}

/** What differs from the outcome that is shown, or null when that is much. */
function fewChanges(db: Db, shown: number, contacts: Iterable<ContactValues>, pairs: readonly PairValues[]) {
  const client = db.$client;
  const oldRows = new Map(
    client.prepare('SELECT id, hash FROM contacts WHERE outcome = ?').raw().all(shown) as [number, string][],
  );
  const newRows: { values: ContactValues; hash: string }[] = [];
  for (const values of contacts) {
    const hash = hashOf(values);
    if (oldRows.get(values[0]) === hash) oldRows.delete(values[0]);
    else if (newRows.push({ values, hash }) > FEW) return null;
  }
  const oldPairs = new Map(
    (client.prepare('SELECT a, b, chance, merged FROM pairs WHERE outcome = ?').raw().all(shown) as PairValues[]).map(
      (pair) => [pair.join(), pair],
    ),
  );
  const newPairs = pairs.filter((pair) => !oldPairs.delete(pair.join()));
  if (newRows.length + newPairs.length + oldRows.size + oldPairs.size > FEW) return null;
  return { oldRows: oldRows.keys(), oldPairs: oldPairs.values(), newRows, newPairs };
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

const hashOf = (values: ContactValues): string => hash('md5', values.join('\u0000'), 'base64').slice(0, 16);

/** Drops the outcomes of a job that are no longer shown, those of runs that were stopped included. */
async function dropOthers(db: Db, jobId: number, shown: number): Promise<void> {
  const client = db.$client;
  const others = client
    .prepare('SELECT id FROM outcomes WHERE job_id = ? AND id <> ?')
    .pluck()
    .all(jobId, shown) as number[];
  for (const id of others) {
    for (const table of ['contacts', 'pairs']) {
      const drop = client.prepare(
        `DELETE FROM ${table} WHERE rowid IN (SELECT rowid FROM ${table} WHERE outcome = ? LIMIT ${CHUNK})`,
      );
      while (drop.run(id).changes > 0) await breathe();
    }
    client.prepare('DELETE FROM outcomes WHERE id = ?').run(id);
  }
}
