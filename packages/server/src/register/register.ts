import type { Database } from 'better-sqlite3';
import { keyHash } from './hash';

/** Counted up when what is kept changes: a register of another form is dropped at the start and made again. */
export const REGISTER_FORM = 3;

/** Somebody with the keys by which they are known; `item` is unique in its place. */
export interface Entry {
  item: number;
  keys: readonly string[];
}

/** Where somebody can stand: a job's contacts or companies, or a pick list. */
export type Place = { job: number; about: 'people' | 'companies' } | { list: number };

/** A place as a number: four of them apart, so that all are told from each other. */
const numberOf = (place: Place): number =>
  'list' in place ? place.list * 4 + 2 : place.job * 4 + (place.about === 'people' ? 0 : 1);

/** Makes its tables, empty. It is a file of its own: what lies in it can be made again, see `remake.ts`. */
export function createRegister(client: Database): void {
  client.exec(
    `CREATE TABLE held (key INTEGER, place INTEGER, item INTEGER, PRIMARY KEY (key, place, item)) WITHOUT ROWID;
     CREATE TABLE gone (key INTEGER, export INTEGER, PRIMARY KEY (key, export)) WITHOUT ROWID;
     CREATE TABLE made (place TEXT, job INTEGER, made TEXT, n INTEGER, PRIMARY KEY (place, job, made)) WITHOUT ROWID;
     CREATE INDEX made_by_job ON made (job);
     CREATE TABLE fed (what TEXT PRIMARY KEY, version INTEGER) WITHOUT ROWID`,
  );
}

/** Which state of a thing the register holds, null when none. `what`: 'job 3', 'list 2', 'export 7'. */
export const fedVersion = (client: Database, what: string): number | null =>
  (client.prepare('SELECT version FROM fed WHERE what = ?').pluck().get(what) as number | undefined) ?? null;

export const setFed = (client: Database, what: string, version: number): void =>
  void client.prepare('INSERT OR REPLACE INTO fed (what, version) VALUES (?, ?)').run(what, version);

/**
 * Writes who stands in a place.
 *
 * @param before who stood there, as far as it differs from `after`; null: it is not known, and all of the place is written anew
 */
export function feed(client: Database, place: Place, before: Iterable<Entry> | null, after: Iterable<Entry>): void {
  const number = numberOf(place);
  const remove = client.prepare('DELETE FROM held WHERE key = ? AND place = ? AND item = ?');
  const add = client.prepare('INSERT OR IGNORE INTO held (key, place, item) VALUES (?, ?, ?)');
  const { gone, came } = differences(hashed(before ?? []), hashed(after));
  if (before === null) client.prepare('DELETE FROM held WHERE place = ?').run(number);
  for (const { key, item } of gone) remove.run(key, number, item);
  for (const { key, item } of came) add.run(key, number, item);
  if (before !== null && gone.length + came.length === 0) return;
  client
    .prepare('INSERT INTO fed (what, version) VALUES (?, 1) ON CONFLICT (what) DO UPDATE SET version = version + 1')
    .run(`place ${number}`);
}

/** Counts up whenever other jobs hold other people than before. */
export const heldVersion = (client: Database, jobId: number): number =>
  client
    .prepare(`SELECT total(version) FROM fed WHERE what LIKE 'place %' AND substr(what, 7) % 4 = 0 AND what <> ?`)
    .pluck()
    .get(`place ${numberOf({ job: jobId, about: 'people' })}`) as number;

/** In the order of the keys, as they lie in the table: written so several times as fast. */
function hashed(entries: Iterable<Entry>): Hashed[] {
  const out: Hashed[] = [];
  for (const { item, keys } of entries) for (const key of keys) out.push({ key: keyHash(key), item });
  return out.sort(byKey);
}

interface Hashed {
  key: bigint;
  item: number;
}
const byKey = (a: Hashed, b: Hashed) => (a.key < b.key ? -1 : a.key > b.key ? 1 : a.item - b.item);

/** What stands in one of two lists only; both in the order of the keys. */
function differences(before: readonly Hashed[], after: readonly Hashed[]): { gone: Hashed[]; came: Hashed[] } {
  const [gone, came]: [Hashed[], Hashed[]] = [[], []];
  let [i, j] = [0, 0];
  while (i < before.length || j < after.length) {
    const [was, is] = [before[i], after[j]];
    const order = !was ? 1 : !is ? -1 : byKey(was, is);
    if (order <= 0) i++;
    if (order >= 0) j++;
    if (order < 0) gone.push(was!);
    if (order > 0) came.push(is!);
  }
  return { gone, came };
}

/** Writes who left with an export, by the hashes of their keys. */
export function leave(client: Database, exportId: number, keys: readonly bigint[]): void {
  const add = client.prepare('INSERT OR IGNORE INTO gone (key, export) VALUES (?, ?)');
  client.transaction(() => {
    for (const key of BigInt64Array.from(keys).sort()) add.run(key, exportId);
    setFed(client, `export ${exportId}`, 1);
  })();
}

/** Answers with which export of any job somebody left last; 0: with none. */
export function lastExportOf(client: Database): (keys: readonly string[]) => number {
  if (client.prepare('SELECT 1 FROM gone LIMIT 1').get() === undefined) return () => 0;
  const select = client.prepare('SELECT max(export) FROM gone WHERE key = ?').pluck();
  return (keys) => Math.max(0, ...keys.map((key) => (select.get(keyHash(key)) as number | null) ?? 0));
}

/** Answers whether somebody has left with an export of any job. */
export function goneBefore(client: Database): (keys: readonly string[]) => boolean {
  if (client.prepare('SELECT 1 FROM gone LIMIT 1').get() === undefined) return () => false;
  const select = client.prepare('SELECT 1 FROM gone WHERE key = ? LIMIT 1');
  return (keys) => keys.some((key) => select.get(keyHash(key)) !== undefined);
}

/** The exports that somebody left with, the newest first. */
export function exportsOf(client: Database, keys: readonly string[]): number[] {
  const select = client.prepare('SELECT export FROM gone WHERE key = ?').pluck();
  return [...new Set(keys.flatMap((key) => select.all(keyHash(key)) as number[]))].sort((a, b) => b - a);
}

export type Standing = 'fresh' | 'thisJob' | 'otherJobs';

/** Of one key no more contacts than these: a name that hundreds have tells nobody apart. */
const MOST_KNOWN = 100;

/** Answers which contacts of jobs are known by one of some keys. */
export function whoIsKnown(client: Database): (keys: readonly string[]) => { jobId: number; contact: number }[] {
  const select = client.prepare<[bigint], { jobId: number; contact: number }>(
    `SELECT place / 4 AS jobId, item AS contact FROM held WHERE key = ? AND place % 4 = 0 LIMIT ${MOST_KNOWN}`,
  );
  return (keys) => keys.flatMap((key) => select.all(keyHash(key)));
}

/** The contacts of jobs that are known by one of the keys. */
export const contactsKnownBy = (client: Database, keys: readonly string[]) => whoIsKnown(client)(keys);

/** True while nobody is held anywhere: nothing has to be asked then. */
export const isEmpty = (client: Database): boolean => client.prepare('SELECT 1 FROM held LIMIT 1').get() === undefined;

/** Answers which jobs and pick lists hold somebody: jobs by their number, a pick list as null. */
export function heldIn(client: Database): (keys: readonly string[]) => Set<number | null> {
  const select = client.prepare('SELECT place FROM held WHERE key = ?').pluck();
  return (keys) =>
    new Set(
      keys.flatMap((key) =>
        (select.all(keyHash(key)) as number[]).map((place) => (place % 4 === 2 ? null : Math.floor(place / 4))),
      ),
    );
}

/** Answers where somebody stands: in this job, in another or on a pick list, or nowhere. */
export function standingOf(client: Database, jobId: number | null): (keys: readonly string[]) => Standing {
  const held = heldIn(client);
  return (keys) => {
    const places = held(keys);
    return places.size === 0 ? 'fresh' : jobId !== null && places.has(jobId) ? 'thisJob' : 'otherJobs';
  };
}
