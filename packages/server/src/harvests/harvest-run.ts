import { randomUUID } from 'node:crypto';
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import {
  cellsAs,
  findRecordSets,
  lastNumber,
  lowestOf,
  nextPage,
  readPage,
  rowsBeforeTurn,
  sameSet,
  stepIn,
  tidier,
  tidy,
  type HarvestEnd,
  type Page,
} from '@sieve/core';
import type { RunResult, Settings } from '@sieve/contract';
import type { Db } from '../db/open';
import { sieveOf } from '../jobs/store';
import { sleep } from '../outside/wrap/pace';
import { AskedToWait } from '../outside/web/asked-to-wait';
import { visitor, type Visited } from '../outside/web/visit';
import type { Later, RunContext } from '../runs/context';
import { readPageText, resolver } from '../sources/documents/page';
import { rowStanding } from '../sources/row-standing';
import { uploadsDir } from '../sources/uploads';
import { sourceById } from '../sources/store';
import {
  likelyPages,
  pagesOf,
  pageWriter,
  setHarvest,
  theHarvest,
  type HarvestRow,
  type ReadPage,
  type SoFar,
} from './store';

const SHOW_EVERY_MS = 5000;

/**
 * Takes the records of a page and of the pages after it, one at a time, at the pace that was set or the slower one that the site asks
 * for, from the page where it was stopped. A site that asks to wait is asked again when it said. A page whose layout is another is
 * told, and nothing of it taken; the next one is read again.
 */
export async function runHarvest({
  db,
  input: { harvestId },
  settings,
  dataDir,
  now,
  progress,
  sift,
  signal,
}: RunContext<'harvest'>): Promise<RunResult | Later> {
  const web = visitor(settings.web);
  let harvest = theHarvest(db, harvestId);
  const write = pageWriter(db, harvestId, now, yoursOf(db, harvest, settings));
  let shown = now();
  let last = pagesOf(db, harvest).at(-1)?.at ?? 0;
  while (harvest.end === null) {
    signal.throwIfAborted();
    const isKept = harvest.round === 1 && harvest.number === 1;
    let visited: Visited;
    let ms = 0;
    try {
      if (isKept) {
        const html = await readPageText(join(dataDir, 'uploads', harvest.file));
        visited = { address: harvest.start, html, bytes: html.length };
        last = now();
      } else {
        const { seconds } = (await web.robots(harvest.address, signal))(harvest.address);
        if (seconds !== harvest.siteSeconds) setHarvest(db, harvestId, { siteSeconds: seconds });
        await sleep(last + Math.max(seconds, theHarvest(db, harvestId).seconds) * 1000 - now(), signal);
        const began = now();
        visited = await web.visit(harvest.address, signal);
        last = now();
        ms = last - began;
      }
    } catch (error) {
      if (!(error instanceof AskedToWait)) throw error;
      const rows = rowsOf(db, harvest);
      return { later: { code: 'asked-to-wait', host: new URL(harvest.address).host, rows }, at: now() + error.waitMs };
    }
    const soFar = rowsOf(db, harvest);
    const { page, address, lastNumber: number } = take(harvest, visited, ms, soFar);
    if (page.state === 'changed') page.file = await keep(dataDir, visited.html);
    const fresh = write(page, { address, lastNumber: number }, endOf(harvest.stop, page, address));
    harvest = theHarvest(db, harvestId);
    const done = harvest.number - 1;
    progress(done, harvest.end === null ? Math.max(done + 1, likelyPages(harvest, pagesOf(db, harvest))) : done);
    if (fresh > 0 && now() - shown > SHOW_EVERY_MS) {
      shown = now();
      sift();
    }
  }
  const pages = pagesOf(db, harvest);
  return {
    code: 'harvested',
    pages: pages.length,
    rows: rowsOf(db, harvest),
    changed: pages.filter(({ state }) => state === 'changed').length,
    end: harvest.end,
  };
}

/** Rows that came in so far, each once. */
const rowsOf = (db: Db, harvest: HarvestRow): number => pagesOf(db, harvest).reduce((sum, { fresh }) => sum + fresh, 0);

/** Keeps a page that a person has to look at. @returns its name among the uploads */
async function keep(dataDir: string, html: string): Promise<string> {
  const id = randomUUID();
  await writeFile(join(await uploadsDir(dataDir), id), html);
  return id;
}

/** What a page gives of the set, and the page that comes after it. */
function take({ set, stop, next, lastNumber: known }: HarvestRow, visited: Visited, ms: number, soFar: number) {
  const page = readPage(visited.html);
  const here = visited.address || page.address;
  const resolve = resolver(page, here);
  const found = sameSet(findRecordSets(page), set);
  const all = found ? cellsAs(found, set.fields, resolve) : [];
  const { column } = stop;
  const watched = column ? all.map((cells) => cells[column.field] ?? '') : [];
  const turned = column ? rowsBeforeTurn(watched, column.turns) : all.length;
  const cells = all.slice(0, Math.max(0, Math.min(turned, stop.rows - soFar)));
  const state = found ? ('read' as const) : ('changed' as const);
  const left = all.length - cells.length;
  const read: ReadPage = { address: visited.address, state, cells, left, lowest: lowestOf(watched), ms, file: '' };
  return {
    page: read,
    address: afterOf(page, here, resolve, next),
    lastNumber: Math.max(known, lastNumber(page, here, resolve)),
  };
}

function afterOf(page: Page, here: string, resolve: (link: string) => string, next: HarvestRow['next']): string {
  return next.by === 'none' ? '' : nextPage(page, here, resolve, next.by === 'link' ? { text: next.text } : null);
}

/** Why a harvest ends with a page; null: it goes on. */
const endOf =
  (stop: HarvestRow['stop'], page: ReadPage, after: string) =>
  ({ pages, rows, fresh, isMet }: SoFar): HarvestEnd | null => {
    if (rows >= stop.rows) return 'rows';
    if (stop.column && page.left > 0) return 'column';
    if (after === '' || isMet) return 'last-page';
    if (pages >= stop.pages) return 'pages';
    return stop.nothingNew && page.state === 'read' && fresh === 0 ? 'nothing-new' : null;
  };

/** Whether somebody is held in any job already, by the columns as they are read. */
function yoursOf(db: Db, { jobId, sourceId }: HarvestRow, { lists }: Settings): (cells: string[]) => boolean {
  const { columns } = sourceById(db, sourceId)!;
  const { phoneCountry } = stepIn(sieveOf(db, jobId), tidy).options;
  const standing = rowStanding(db, jobId, tidier({ phoneCountry, lists }));
  return (cells) => standing(cells, columns).stands !== 'fresh';
}
