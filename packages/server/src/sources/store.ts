import { ownName, toRecords, type Column, type IssueCode, type RawRow } from '@sieve/core';
import type { Author, OwnField, SourceAbout, SourceRow } from '@sieve/contract';
import { and, eq, sql } from 'drizzle-orm';
import { insertedId, type Db } from '../db/open';
import { named } from '../db/named';
import { decide } from '../decisions/commands';
import { broughtIn, standingDecisions } from '../decisions/store';
import { intakeOf } from '../runs/store';
import { rowIssues, sources } from './tables';

/** Of the columns of a source at least one has to be among these. */
export const SAYS_WHO: readonly string[] = ['fullName', 'firstName', 'lastName', 'email', 'phone', 'profile'];

/** Characters of a row that stayed out. */
const LONGEST_SHOWN = 300;

type NewSource = Pick<
  typeof sources.$inferInsert,
  'jobId' | 'name' | 'origin' | 'about' | 'columns' | 'file' | 'rowsRead'
>;

/** Adds a source to a job, brought in by a decision that can be taken back. Called in a transaction. */
export function addSource(db: Db, source: NewSource, author: Author, now: number): number {
  const id = insertedId(
    db
      .insert(sources)
      .values({ ...source, createdAt: now })
      .run(),
  );
  decide(db, source.jobId, author, { kind: 'bring-in', sourceId: id, name: source.name }, now);
  return id;
}

/** How the columns of the sources of a job are read where that was decided after they came in. */
const columnsSaid = (db: Db, jobId: number): Map<number, Column[]> =>
  new Map(
    standingDecisions(db, jobId).flatMap(({ body }) =>
      body.kind === 'columns' ? [[body.sourceId, body.columns as Column[]]] : [],
    ),
  );

/** A source, its columns as they are read now. */
export function sourceById(db: Db, id: number): typeof sources.$inferSelect | undefined {
  const source = db.select().from(sources).where(eq(sources.id, id)).get();
  return source && { ...source, columns: columnsSaid(db, source.jobId).get(id) ?? source.columns };
}

/** Adds records to a source, in the transaction of whoever fetched them. @returns adds one; `line` counts from 1 */
export function recordAdder(db: Db): (sourceId: number, line: number, cells: readonly string[]) => number {
  const add = db.$client.prepare('INSERT INTO records (source_id, line, cells) VALUES (?, ?, ?)');
  return (sourceId, line, cells) => add.run(sourceId, line, JSON.stringify(cells)).lastInsertRowid as number;
}

export const countRead = (db: Db, sourceId: number, rows: number): void =>
  void db.$client.prepare('UPDATE sources SET rows_read = rows_read + ? WHERE id = ?').run(rows, sourceId);

/**
 * Writes rows of a file, what was wrong with them, and how far the file was read, together.
 *
 * @param outAs why a row stays out, by its cells, and where its person stands; null: it comes in. What stays out is listed
 */
export function chunkWriter(
  db: Db,
  sourceId: number,
  width: number,
  outAs: (cells: string[]) => { code: string; field: string } | null = () => null,
  gap: { sourceId: number; column: number } | null = null,
) {
  const client = db.$client;
  const add = recordAdder(db);
  const issue = client.prepare(
    'INSERT INTO row_issues (source_id, line, code, kept, field, input) VALUES (?, ?, ?, ?, ?, ?)',
  );
  const mend = client.prepare('UPDATE row_issues SET mended_by = ? WHERE source_id = ? AND line = ? AND kept = 0');
  return (rows: RawRow[], before: number): number => {
    const read = toRecords(rows, width);
    client
      .transaction(() => {
        for (const { line, cells } of read.records) {
          const out = outAs(cells);
          if (out === null) {
            add(sourceId, line, cells);
            if (gap) mend.run(sourceId, gap.sourceId, Number(cells[gap.column]));
          } else issue.run(sourceId, line, out.code, 0, out.field, cells.join(' | ').slice(0, LONGEST_SHOWN));
        }
        for (const i of read.issues) issue.run(sourceId, i.line, i.code, i.kept ? 1 : 0, i.field, i.input);
        countRead(db, sourceId, rows.length);
      })
      .immediate();
    return before + rows.length;
  };
}

/** A source as sifting takes it. */
export interface SourceIn {
  id: number;
  name: string;
  about: SourceAbout;
  columns: Column[];
}

/** The sources of a job whose bringing in stands, by id. */
export function sourcesIn(db: Db, jobId: number): SourceIn[] {
  const brought = broughtIn(db, jobId);
  const said = columnsSaid(db, jobId);
  return db
    .select({ id: sources.id, name: sources.name, about: sources.about, columns: sources.columns })
    .from(sources)
    .where(eq(sources.jobId, jobId))
    .orderBy(sources.id)
    .all()
    .filter(({ id }) => brought.get(id)?.out === false)
    .map((source) => ({ ...source, columns: said.get(source.id) ?? source.columns }));
}

/** The fields of the person's own that the sources of a job hold, each with what its values are. */
export function ownFieldsIn(db: Db, jobId: number): OwnField[] {
  const types = new Map<string, OwnField['type']>();
  for (const { columns } of sourcesIn(db, jobId))
    for (const column of columns) {
      const { target, type = 'text' } = column;
      if (target === 'own' && (type !== 'text' || !types.has(ownName(column)))) types.set(ownName(column), type);
    }
  return [...types].map(([name, type]) => ({ name, type }));
}

/** Uploads that are files of a source. */
export const filesInUse = (db: Db): string[] =>
  db.$client.prepare("SELECT file FROM sources WHERE file <> ''").pluck().all() as string[];

export const recordCount = (db: Db, sourceId: number): number =>
  db.$client.prepare('SELECT count(*) FROM records WHERE source_id = ?').pluck().get(sourceId) as number;

/** The cells of the records that came last, the newest first. */
export const latestRecords = (db: Db, sourceId: number, most: number): string[][] =>
  (
    db.$client
      .prepare('SELECT cells FROM records WHERE source_id = ? ORDER BY id DESC LIMIT ?')
      .pluck()
      .all(sourceId, most) as string[]
  ).map((cells) => JSON.parse(cells) as string[]);

/** Walks the records of a source in the order of their ids. @returns those behind an id, some at a time */
export function recordsBehind(db: Db, sourceId: number, limit: number) {
  const next = db.$client
    .prepare('SELECT id, cells FROM records WHERE source_id = ? AND id > ? ORDER BY id LIMIT ?')
    .raw();
  return (behind: number): [id: number, cells: string[]][] =>
    (next.all(sourceId, behind, limit) as [number, string][]).map(([id, cells]) => [id, JSON.parse(cells) as string[]]);
}

export function cellsOf(db: Db): (recordId: number) => string[] {
  const select = db.$client.prepare('SELECT cells FROM records WHERE id = ?').pluck();
  return (recordId) => JSON.parse(select.get(recordId) as string) as string[];
}

export interface RecordAsItCame {
  id: number;
  line: number;
  cells: string[];
  source: string;
  /** When its source came, in ms since 1970. */
  at: number;
  columns: Column[];
}

/** Which source each record of a job came by. */
export const sourcesOfRecords = (db: Db, jobId: number): Map<number, number> =>
  new Map(
    db.$client
      .prepare('SELECT r.id, r.source_id FROM records r JOIN sources s ON s.id = r.source_id WHERE s.job_id = ?')
      .raw()
      .all(jobId) as [number, number][],
  );

/** One record of a job as it came; undefined when the job has none of this number. */
export function recordOf(db: Db, jobId: number): (id: number) => RecordAsItCame | undefined {
  const select = db.$client.prepare(
    `SELECT r.id, r.line, r.cells, s.id AS sourceId, s.name AS source, s.created_at AS at, s.columns FROM records r JOIN sources s ON s.id = r.source_id
     WHERE r.id = ? AND s.job_id = ?`,
  );
  const said = columnsSaid(db, jobId);
  return (id) => {
    const row = select.get(id, jobId) as
      (Record<'cells' | 'columns', string> & { sourceId: number } & RecordAsItCame) | undefined;
    if (!row) return undefined;
    const columns = said.get(row.sourceId) ?? (JSON.parse(row.columns) as Column[]);
    return { ...row, cells: JSON.parse(row.cells) as string[], columns };
  };
}

export function sourceRows(db: Db, jobId: number): SourceRow[] {
  const brought = broughtIn(db, jobId);
  const count = db.$client.prepare(
    `SELECT (SELECT count(*) FROM records WHERE source_id = @id) AS rows, count(*) AS issues,
       count(CASE WHEN kept = 0 THEN 1 END) AS unread FROM row_issues WHERE source_id = @id AND ${isOpen(db, jobId)}`,
  );
  return db
    .select()
    .from(sources)
    .where(eq(sources.jobId, jobId))
    .all()
    .map(({ id, name, createdAt, origin, about, rowsRead }) => ({
      id,
      name,
      createdAt,
      origin,
      about,
      ...(count.get({ id }) as { rows: number; issues: number; unread: number }),
      ...brought.get(id)!,
      stopped: stoppedIntake(db, id, rowsRead),
    }));
}

/** Whether a remark still stands: a row that was mended is, while what mended it is in the job. */
function isOpen(db: Db, jobId: number): string {
  const out = [...broughtIn(db, jobId)].filter(([, { out: isOut }]) => isOut).map(([id]) => id);
  return `(mended_by IS NULL OR mended_by IN (${out.join(', ') || 'NULL'}))`;
}

/** Why rows of a source could not be read, by their lines, as far as nobody has mended them. */
export const openLines = (db: Db, { id, jobId }: { id: number; jobId: number }): Map<number, IssueCode> =>
  new Map(
    db.$client
      .prepare(`SELECT line, code FROM row_issues WHERE source_id = ? AND kept = 0 AND ${isOpen(db, jobId)}`)
      .raw()
      .all(id) as [number, IssueCode][],
  );

/** What is missing of a source whose bringing in failed or was stopped for good. */
function stoppedIntake(db: Db, id: number, rowsRead: number): SourceRow['stopped'] {
  const run = intakeOf(db, id);
  if (run?.input.kind !== 'bring-in' || (run.state !== 'cancelled' && run.state !== 'failed')) return null;
  return { runId: run.id, missing: Math.max(0, run.input.rows - rowsRead) };
}

/** What was wrong with the rows of a source, the first 5,000. */
export const sourceIssues = (db: Db, sourceId: number) =>
  db
    .select({
      line: rowIssues.line,
      code: rowIssues.code,
      kept: rowIssues.kept,
      field: rowIssues.field,
      input: rowIssues.input,
    })
    .from(rowIssues)
    .where(and(eq(rowIssues.sourceId, sourceId), sql.raw(isOpen(db, sourceById(db, sourceId)!.jobId))))
    .limit(5000)
    .all();

export const sourcesNamed = (db: Db, q: string, most: number) =>
  named<{ id: number; name: string; jobId: number }>(db.$client, 'sources', 'id, name, job_id AS jobId', q, most);
