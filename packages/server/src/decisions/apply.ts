import type { ChangeBody } from '@sieve/contract';
import type { Db } from '../db/open';
import { AppError } from '../errors';
import { harvestState, setHarvestState } from '../harvests/store';
import { jobRow, patchJob } from '../jobs/store';
import { setRefund } from '../ledger/store';
import { setPicked } from '../picks/store';
import { setSuppressed } from '../register/suppressions';
import { searchState, setSearchState } from '../searches/store';
import { settingsState, setSettingsState } from '../settings/store';

type BodyOf<K extends ChangeBody['kind']> = Extract<ChangeBody, { kind: K }>;

/** How each kind of change is taken back and made again; what decides about a job's outcome needs none of this. */
export const APPLY: {
  [K in ChangeBody['kind']]: (db: Db, subjectId: number, body: BodyOf<K>, undone: boolean, now: number) => void;
} = {
  brief: (db, jobId, body, undone) => patchJob(db, jobId, turned(jobRow(db, jobId), body, undone)),
  search: (db, searchId, body, undone) => setSearchState(db, searchId, turned(searchState(db, searchId), body, undone)),
  settings: (db, _, body, undone) => setSettingsState(db, turned(settingsState(db), body, undone)),
  harvest: (db, id, body, undone, now) => setHarvestState(db, id, turned(harvestState(db, id), body, undone), now),
  pick: (db, listId, { rowIds, in: isIn }, undone) => void setPicked(db, listId, rowIds, isIn !== undone),
  refund: (db, _, body, undone, now) => {
    if (!setRefund(db, body, !undone, now)) throw new AppError('not-undoable', { why: 'of the charge less is left' });
  },
  suppress: (db, _, { entries, in: isIn }, undone, now) => void setSuppressed(db, entries, isIn !== undone, now),
};

/** The values to go back to, or on to. Throws when they are no longer those that the change left. */
function turned(
  state: object | undefined,
  { before, after }: Pick<BodyOf<'brief'>, 'before' | 'after'>,
  undone: boolean,
): Record<string, unknown> {
  const [from, to] = undone ? [after, before] : [before, after];
  const now = (state ?? {}) as Record<string, unknown>;
  const other = Object.keys(from).find((key) => JSON.stringify(now[key] ?? null) !== JSON.stringify(from[key] ?? null));
  if (other !== undefined) throw new AppError('not-undoable', { why: `${other} was changed again since` });
  return to;
}
