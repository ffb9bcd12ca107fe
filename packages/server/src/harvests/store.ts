import { createHash } from 'node:crypto';
import { zeroNear, type HarvestEnd } from '@sieve/core';
import type { HarvestPageRow, HarvestView, NextWish } from '@sieve/contract';
import { and, asc, eq, lte } from 'drizzle-orm';
import { insertedId, type Db } from '../db/open';
import { broughtIn } from '../decisions/store';
import { AppError } from '../errors';
import { countRead, latestRecords, recordAdder, sourceById } from '../sources/store';
import { harvestPages, harvests, nextPages } from './tables';

export type HarvestRow = typeof harvests.$inferSelect;
type PageRow = typeof harvestPages.$inferSelect;

export const addHarvest = (db: Db, row: typeof harvests.$inferInsert): number =>
  insertedId(db.insert(harvests).values(row).run());

/** Throws when there is none. */
export function theHarvest(db: Db, id: number): HarvestRow {
  const found = db.select().from(harvests).where(eq(harvests.id, id)).get();
  if (!found) throw new AppError('not-found', { what: 'harvest' });
  return found;
}

export const setHarvest = (db: Db, id: number, change: Partial<HarvestRow>): void =>
  void db.update(harvests).set(change).where(eq(harvests.id, id)).run();

/** What of a harvest can be changed while it goes. */
export const harvestState = (db: Db, id: number): Pick<HarvestRow, 'stop' | 'seconds' | 'everyDays'> => {
  const { stop, seconds, everyDays } = theHarvest(db, id);
  return { stop, seconds, everyDays };
};

export function setHarvestState(db: Db, id: number, change: Partial<ReturnType<typeof harvestState>>, now: number) {
  const standing = change.everyDays !== undefined && { nextAt: nextAtOf(change.everyDays, now) };
  setHarvest(db, id, { ...change, ...standing });
}

const DAY_MS = 86_400_000;
export const nextAtOf = (everyDays: number | null, now: number): number | null =>
  everyDays === null ? null : now + everyDays * DAY_MS;

/** Pages that were kept to be looked at. */
export const pagesToLookAt = (db: Db): string[] =>
  db.$client.prepare("SELECT file FROM harvest_pages WHERE file <> ''").pluck().all() as string[];

/** Those that stand and are to be asked again. */
export const dueHarvests = (db: Db, now: number): HarvestRow[] =>
  db.select().from(harvests).where(lte(harvests.nextAt, now)).all();

export const pagesOf = (db: Db, { id, round }: Pick<HarvestRow, 'id' | 'round'>): PageRow[] =>
  db
    .select()
    .from(harvestPages)
    .where(and(eq(harvestPages.harvestId, id), eq(harvestPages.round, round)))
    .orderBy(asc(harvestPages.number))
    .all();

const hostOf = (address: string) => (URL.canParse(address) ? new URL(address).host : '');

export const rememberedNext = (db: Db, address: string): NextWish | null =>
  db
    .select()
    .from(nextPages)
    .where(eq(nextPages.host, hostOf(address)))
    .get()?.next ?? null;

export function rememberNext(db: Db, address: string, next: NextWish): void {
  const host = hostOf(address);
  if (host !== '')
    db.insert(nextPages).values({ host, next }).onConflictDoUpdate({ target: nextPages.host, set: { next } }).run();
}

/** What makes a record itself: its own link, else all that it holds. */
export const recordKey = (cells: readonly string[], identity: number): string =>
  cells[identity] || createHash('sha256').update(cells.join('\u001f')).digest('base64url');

/** A page as a run has read it. */
export type ReadPage = Omit<PageRow, 'harvestId' | 'round' | 'number' | 'fresh' | 'yours' | 'at' | 'rows'> & {
  cells: string[][];
};

/** How far a harvest is with a page written: what says whether it goes on. */
export interface SoFar {
  pages: number;
  /** That came in, each once. */
  rows: number;
  /** Of the page. */
  fresh: number;
  /** The page after it was visited already. */
  isMet: boolean;
}

/**
 * Writes a page, its records and the checkpoint together. A record that the job has from an earlier page or time is counted, and not
 * brought in again; what was taken back is not had.
 */
export function pageWriter(db: Db, harvestId: number, now: () => number, isYours: (cells: string[]) => boolean) {
  const client = db.$client;
  const sourceOf = client.prepare('SELECT source_id FROM harvested WHERE harvest_id = ? AND key = ?').pluck();
  const mark = client.prepare('INSERT OR REPLACE INTO harvested (harvest_id, key, source_id) VALUES (?, ?, ?)');
  const add = recordAdder(db);
  return (
    { cells, ...page }: ReadPage,
    then: Pick<HarvestRow, 'address' | 'lastNumber'>,
    endOf: (soFar: SoFar) => HarvestEnd | null,
  ): number =>
    client
      .transaction(() => {
        const harvest = theHarvest(db, harvestId);
        const { jobId, sourceId, round, set, number } = harvest;
        const brought = broughtIn(db, jobId);
        const identity = set.fields.findIndex(({ key }) => key === set.identity);
        const before = sourceById(db, sourceId)!.rowsRead;
        let [fresh, yours] = [0, 0];
        for (const row of cells) {
          const key = recordKey(row, identity);
          const known = sourceOf.get(harvestId, key) as number | undefined;
          if (known !== undefined && brought.get(known)?.out === false) continue;
          mark.run(harvestId, key, sourceId);
          if (isYours(row)) yours++;
          add(sourceId, before + ++fresh, row);
        }
        countRead(db, sourceId, fresh);
        const counts = { rows: cells.length, fresh, yours };
        db.insert(harvestPages)
          .values({ ...page, ...counts, harvestId, round, number, at: now() })
          .run();
        const pages = pagesOf(db, harvest);
        const isMet = pages.some(({ address }) => address === then.address);
        const rows = pages.reduce((sum, one) => sum + one.fresh, 0);
        const end = endOf({ pages: pages.length, rows, fresh, isMet });
        setHarvest(db, harvestId, { ...then, number: number + 1, end });
        return fresh;
      })
      .immediate();
}

const LATEST = 30;

export function harvestView(db: Db, row: HarvestRow): HarvestView {
  const {
    id,
    jobId,
    sourceId,
    runId,
    name,
    start,
    file,
    next,
    stop,
    set,
    seconds,
    siteSeconds,
    everyDays,
    nextAt,
    number,
    end,
  } = row;
  const pages = pagesOf(db, row);
  const sum = (of: (page: PageRow) => number) => pages.reduce((total, page) => total + of(page), 0);
  return {
    id,
    jobId,
    sourceId,
    runId,
    name,
    address: start,
    upload: file,
    set: { path: set.path, keys: set.fields.map(({ key }) => key), columns: sourceById(db, sourceId)!.columns },
    next,
    latest: latestRecords(db, sourceId, LATEST),
    stop,
    watched: stop.column ? (set.fields[stop.column.field]?.name ?? '') : '',
    seconds,
    siteSeconds,
    everyDays,
    nextAt,
    number,
    end,
    rows: sum(({ fresh }) => fresh),
    yours: sum(({ yours }) => yours),
    likelyPages: likelyPages(row, pages),
    pages: pages.map((page): HarvestPageRow => ({
      number: page.number,
      address: page.address,
      state: page.state,
      rows: page.rows,
      fresh: page.fresh,
      yours: page.yours,
      left: page.left,
      lowest: page.lowest,
      upload: page.file,
      ms: page.ms,
      at: page.at,
    })),
  };
}

/** Where a harvest will likely end: the first of its rules to be met, by the pages so far; 0 when nothing says it. */
export function likelyPages({ stop, lastNumber, end, number }: HarvestRow, pages: readonly PageRow[]): number {
  if (end !== null) return pages.length;
  const rows = pages.reduce((sum, page) => sum + page.fresh, 0);
  const read = pages.filter(({ state }) => state === 'read').length;
  const byRows = rows > 0 ? Math.ceil(stop.rows / (rows / read)) : Infinity;
  const byColumn = (stop.column && zeroNear(pages.map(({ lowest }) => lowest))) ?? Infinity;
  const likely = Math.min(stop.pages, lastNumber || Infinity, byRows, byColumn);
  return Math.max(likely, number);
}
