import { allowance, fold, startOfDay, type Hours } from '@sieve/core';
import type { DirectoryRow, RunResult } from '@sieve/contract';
import type { Db } from '../db/open';
import { broughtIn } from '../decisions/store';
import { AppError } from '../errors';
import { ServiceDown } from '../outside/wrap/service-down';
import type { Directory } from '../outside/directory/port';
import { keysOfRow } from '../register/held-rows';
import { standingOf } from '../register/register';
import type { Later, RunContext } from '../runs/context';
import { directoryCells } from '../sources/directory/directory-source';
import { countRead, recordAdder } from '../sources/store';
import { pullById, setPull } from './store';

/** Walks the pages of a result this often at most, to find rows that shifted past. */
const MOST_ROUNDS = 3;
const SHOW_EVERY_MS = 5000;

/**
 * Fetches a batch page by page, from the page where it was stopped. Each page is written in one transaction with the
 * checkpoint, each row once: a row that the job has from another pull is counted and not brought in again.
 */
export async function pullBatch(
  context: RunContext<'pull'>,
  directory: Directory,
  hours: Hours,
): Promise<RunResult | Later> {
  const { db, input, progress, signal, now } = context;
  const { pullId } = input;
  const read = () => pullById(db, pullId);
  let pull = read();
  const standing = standingOf(db.register, pull.jobId);
  const write = pageWriter(db, pullId, now, (row) => standing(keysOfRow(row)) !== 'fresh');
  let shown = now();
  let thisRun = 0;
  try {
    while (pull.round <= MOST_ROUNDS) {
      signal.throwIfAborted();
      const may = allowance(hours, now(), rowsToday(db, startOfDay(now(), hours.zone)));
      if (may.rows === 0)
        return { later: { code: 'out-of-hours', came: pull.came, promised: pull.promised }, at: may.at };
      if (hours.rowsARun > 0 && thisRun >= hours.rowsARun)
        return { later: { code: 'enough-for-a-run', rows: hours.rowsARun }, at: null };
      const page = await directory.page(pull.search, pull.page, signal);
      const left = pull.first > 0 ? pull.first - pull.came : Infinity;
      const rows = page.rows.slice(0, Math.max(0, left));
      const came = write(rows, Math.min(page.total, pull.first || Infinity), pull.page >= Math.max(1, page.pages));
      thisRun += rows.length;
      const before = pull;
      pull = read();
      progress(Math.min(pull.came, pull.promised), pull.promised);
      if (pull.first > 0 && pull.came >= pull.first) break;
      // A round that ended: whole, or as much as walking on finds.
      const reachable = Math.min(pull.promised, directory.pages[pull.search.about] * directory.pageSize);
      if (pull.round > before.round && (pull.came >= reachable || (before.round > 1 && before.roundNew + came === 0)))
        break;
      if (now() - shown > SHOW_EVERY_MS) {
        shown = now();
        context.sift();
      }
    }
  } catch (error) {
    if (error instanceof ServiceDown)
      throw new AppError('directory-down', { name: error.service, reason: error.reason });
    throw error;
  }
  setPull(db, pullId, { endedAt: now() });
  const { promised, came, fresh, full } = read();
  return { code: 'pulled', promised, came, fresh, full };
}

/** Rows of all searches since midnight. */
export const rowsToday = (db: Db, midnight: number): number =>
  db.$client.prepare('SELECT count(*) FROM pulled WHERE at >= ?').pluck().get(midnight) as number;

/** Writes the rows of a page, what they came to, and the page to go on with, together. */
function pageWriter(db: Db, pullId: number, now: () => number, isYours: (row: DirectoryRow) => boolean) {
  const client = db.$client;
  const taken = client
    .prepare(
      `SELECT q.source_id FROM pulled p JOIN pulls q ON q.id = p.pull_id WHERE p.row_id = ? AND q.job_id = ? AND p.taken`,
    )
    .pluck();
  const colleagues = client
    .prepare(
      `SELECT q.source_id FROM pulled p JOIN pulls q ON q.id = p.pull_id
         WHERE p.company = ? AND p.taken AND q.search_id = ? AND q.job_id = ?`,
    )
    .pluck();
  /** How many of these sources are in the job: what was taken back is not there. */
  const inJob = (sourceIds: unknown[], brought: ReturnType<typeof broughtIn>) =>
    sourceIds.filter((id) => brought.get(id as number)?.out === false).length;
  const mark = client.prepare(
    'INSERT OR IGNORE INTO pulled (pull_id, row_id, company, taken, at) VALUES (?, ?, ?, ?, ?)',
  );
  const addRecord = recordAdder(db);
  const move = client.prepare(
    `UPDATE pulls SET page = @page, round = @round, round_new = @roundNew, promised = max(promised, @promised),
       came = came + @came, fresh = fresh + @fresh, yours = yours + @yours, full = full + @full WHERE id = @id`,
  );
  return (rows: readonly DirectoryRow[], total: number, last: boolean): number =>
    client
      .transaction(() => {
        const pull = pullById(db, pullId);
        const brought = broughtIn(db, pull.jobId);
        const counts = { came: 0, fresh: 0, yours: 0, full: 0 };
        for (const row of rows) {
          const hasIt = inJob(taken.all(row.id, pull.jobId), brought) > 0;
          const company = fold(row.company);
          const isFull =
            !hasIt &&
            pull.perCompany > 0 &&
            company !== '' &&
            inJob(colleagues.all(company, pull.searchId, pull.jobId), brought) >= pull.perCompany;
          // A row that the job has from another pull is not counted for its company again.
          if (mark.run(pullId, row.id, company, isFull || hasIt ? 0 : 1, now()).changes === 0) continue;
          counts.came++;
          if (isFull) counts.full++;
          if (hasIt || isFull) continue;
          if (isYours(row)) counts.yours++;
          addRecord(pull.sourceId, pull.fresh + ++counts.fresh, directoryCells(row, pull.kept));
        }
        countRead(db, pull.sourceId, counts.fresh);
        move.run({
          id: pullId,
          page: last ? 1 : pull.page + 1,
          round: last ? pull.round + 1 : pull.round,
          roundNew: last ? 0 : pull.roundNew + counts.came,
          promised: total,
          ...counts,
        });
        return counts.came;
      })
      .immediate();
}
