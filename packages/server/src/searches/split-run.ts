import { split, type Counting, type Search } from '@sieve/core';
import type { RunResult } from '@sieve/contract';
import type { Db } from '../db/open';
import { AppError } from '../errors';
import { capOf, type Directory } from '../outside/directory/port';
import { ServiceDown } from '../outside/wrap/service-down';
import type { RunContext } from '../runs/context';
import { changeSearch } from './commands';
import { splitState } from './split-search';
import { setSearchState, theSearch } from './store';

/**
 * Splits a search. Every answer of the directory is written as it comes, so that a run that is stopped or whose server is
 * killed asks none of them again. Fails, and changes nothing, when the search was changed meanwhile. What a schedule splits is not in
 * the log: nobody takes it back.
 */
export async function runSplit(context: RunContext<'split'>, directory: Directory): Promise<RunResult> {
  const { db, runId, input, progress, signal, now } = context;
  const { searchId, version, thenPull } = input;
  const { search, version: is } = theSearch(db, searchId);
  if (!thenPull && is !== version) throw new AppError('changed-meanwhile', { what: 'The search' });
  const cap = capOf(directory, search.about);
  const found = await split(
    search,
    cap,
    remembering(db, runId, directory, signal, (asked) => progress(asked, 0)),
  );
  if (thenPull) setSearchState(db, searchId, splitState(found), is);
  else changeSearch(db, searchId, splitState(found), now(), version);
  forget(db, runId);
  return { code: 'split', batches: found.batches.length, questions: found.questions };
}

/** Asks what was not answered before in this run; told how many questions have been answered. */
function remembering(
  db: Db,
  runId: number,
  directory: Directory,
  signal: AbortSignal,
  onAnswer: (answered: number) => void,
): Counting {
  const client = db.$client;
  const known = client.prepare('SELECT answer FROM split_answers WHERE run_id = ? AND question = ?').pluck();
  const add = client.prepare('INSERT OR IGNORE INTO split_answers (run_id, question, answer) VALUES (?, ?, ?)');
  let answered = client.prepare('SELECT count(*) FROM split_answers WHERE run_id = ?').pluck().get(runId) as number;
  async function asked<T>(question: string, ask: () => Promise<T>): Promise<T> {
    const before = known.get(runId, question) as string | undefined;
    if (before !== undefined) return JSON.parse(before) as T;
    signal.throwIfAborted();
    const answer = await ask().catch((error: unknown) => {
      if (error instanceof ServiceDown)
        throw new AppError('directory-down', { name: error.service, reason: error.reason });
      throw error;
    });
    add.run(runId, question, JSON.stringify(answer));
    onAnswer(++answered);
    return answer;
  }
  return {
    count: (search: Search) => asked(JSON.stringify(search), () => directory.count(search, signal)),
    async facet(search, field) {
      const values = await asked(JSON.stringify([field, search]), async () => {
        const counted = await directory.facet(search, field, signal);
        return counted && [...counted];
      });
      return values && new Map(values);
    },
  };
}

/** What was answered for runs that have come to an end is of no more use. */
const forget = (db: Db, runId: number): void =>
  void db.$client.prepare('DELETE FROM split_answers WHERE run_id <= ?').run(runId);
