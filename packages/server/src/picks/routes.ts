import { csvLine, harmless } from '@sieve/core';
import { newPickList, picksBody, type DirectoryRow, type PickList } from '@sieve/contract';
import { desc, eq } from 'drizzle-orm';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import type { AppContext } from '../app-context';
import { jobById } from '../jobs/store';
import { heldRows } from '../searches/store';
import { addSource } from '../sources/store';
import { pickLists, picks } from '../db/schema';
import { AppError } from '../errors';
import { directoryCells, DIRECTORY_COLUMNS, directorySource } from '../sources/directory/directory-source';
import { patience } from '../searches/patience';

const byId = z.object({ id: z.coerce.number().int().positive() });

/** Rows picked by hand over many searches, on their way to a job. */
export const pickListRoutes =
  ({ db, queue, events, directory, now }: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    const pickList = (id: number): PickList => {
      const found = db.select().from(pickLists).where(eq(pickLists.id, id)).get();
      if (!found) throw new AppError('not-found', { what: 'pick list' });
      const count = db.$client.prepare('SELECT count(*) FROM picks WHERE list_id = ?').pluck().get(id) as number;
      return { ...found, picks: count };
    };
    app.get('/api/pick-lists', (): PickList[] =>
      db
        .select()
        .from(pickLists)
        .orderBy(desc(pickLists.id))
        .all()
        .map(({ id }) => pickList(id)),
    );
    app.post('/api/pick-lists', { schema: { body: newPickList } }, ({ body }) => {
      const { id } = db
        .insert(pickLists)
        .values({ ...body, createdAt: now() })
        .returning({ id: pickLists.id })
        .get();
      return pickList(id);
    });
    const rowsOf = (id: number): DirectoryRow[] =>
      db
        .select({ row: picks.row })
        .from(picks)
        .where(eq(picks.listId, pickList(id).id))
        .all()
        .map(({ row }) => row);
    app.get('/api/pick-lists/:id/picks', { schema: { params: byId } }, ({ params }) => rowsOf(params.id));
    /** The list as a file, CSV as an export writes it. */
    app.get('/api/pick-lists/:id/file', { schema: { params: byId } }, ({ params }, reply) => {
      const lines = [DIRECTORY_COLUMNS.map(({ name }) => name), ...rowsOf(params.id).map((row) => directoryCells(row))];
      return reply
        .type('text/csv; charset=utf-8')
        .header('content-disposition', `attachment; filename="pick-list-${params.id}.csv"`)
        .send(`\uFEFF${lines.map((cells) => `${csvLine(cells.map(harmless))}\r\n`).join('')}`);
    });
    app.post('/api/pick-lists/:id/picks', { schema: { params: byId, body: picksBody } }, async ({ params, body }) => {
      const list = pickList(params.id);
      if (list.about !== body.search.about)
        throw new AppError('bad-request', { detail: `this list holds ${list.about}` });
      const rows: DirectoryRow[] = [];
      const signal = patience();
      const last = body.ids ? body.page : Math.ceil(body.most / directory().pageSize);
      for (let page = body.ids ? body.page : 1; page <= last; page++) {
        const shown = await directory().page(body.search, page, signal);
        rows.push(...shown.rows.filter(({ id }) => body.ids?.includes(id) ?? true));
        if (page >= shown.pages) break;
      }
      const held = body.onlyNew
        ? heldRows(
            db,
            rows.map(({ id }) => id),
          )
        : new Set<string>();
      const add = db.$client.prepare('INSERT OR IGNORE INTO picks (list_id, row_id, row, at) VALUES (?, ?, ?, ?)');
      const chosen = rows.filter(({ id }) => !held.has(id)).slice(0, body.ids ? undefined : body.most);
      const added = db.$client.transaction(() =>
        chosen.reduce((sum, row) => sum + add.run(list.id, row.id, JSON.stringify(row), now()).changes, 0),
      )();
      return { ...pickList(list.id), added };
    });
    app.delete(
      '/api/pick-lists/:id/picks',
      { schema: { params: byId, querystring: z.object({ row: z.string().max(60) }) } },
      ({ params, query }) => {
        db.$client.prepare('DELETE FROM picks WHERE list_id = ? AND row_id = ?').run(params.id, query.row);
        return pickList(params.id);
      },
    );
    /** The picks become a source of a job, taken back as one. */
    app.post(
      '/api/pick-lists/:id/to-job',
      { schema: { params: byId, body: z.object({ jobId: z.int() }) } },
      ({ params, body }) => {
        const list = pickList(params.id);
        if (!jobById(db, body.jobId)) throw new AppError('not-found', { what: 'job' });
        const rows = rowsOf(list.id);
        if (rows.length === 0) throw new AppError('no-rows', { name: list.name });
        db.transaction((tx) => {
          const sourceId = addSource(tx, directorySource(body.jobId, list.name, rows.length), now());
          const add = db.$client.prepare('INSERT INTO records (source_id, line, cells) VALUES (?, ?, ?)');
          rows.forEach((row, i) => add.run(sourceId, i + 1, JSON.stringify(directoryCells(row))));
        });
        queue.enqueue(body.jobId, 'sift');
        events.emit({ type: 'job', jobId: body.jobId });
        return { rows: rows.length };
      },
    );
  };
