import { harmlessLine } from '@sieve/core';
import { directoryRow, newPickList, picked, pickList, picksBody, type DirectoryRow } from '@sieve/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import type { AppContext } from '../app-context';
import { inTransaction } from '../db/open';
import { addDecision } from '../decisions/store';
import { AppError } from '../errors';
import { byId, ok } from '../http/schemas';
import { theJob } from '../jobs/the-job';
import { heldRows } from '../register/held-rows';
import { patience } from '../searches/patience';
import { aboutOf, directoryCells, directoryColumns } from '../sources/directory/directory-source';
import { addSource, recordAdder } from '../sources/store';
import { addPickList, addPicks, allPickLists, pickedRows, setPicked, thePickList } from './store';

/** Rows picked by hand over many searches, on their way to a job. */
export const pickListRoutes =
  ({ db, queue, events, directory, now }: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    const decided = (listId: number, rowIds: string[], isIn: boolean) => {
      if (rowIds.length === 0) return;
      const subject = { subject: 'pick-list' as const, subjectId: listId };
      addDecision(db, subject, 'you', { kind: 'pick', rowIds, in: isIn }, now());
    };
    app.get('/api/pick-lists', { schema: ok(z.array(pickList)) }, () => allPickLists(db));
    app.post('/api/pick-lists', { schema: { body: newPickList, ...ok(pickList) } }, ({ body }) =>
      thePickList(db, addPickList(db, body, now())),
    );
    app.get('/api/pick-lists/:id/picks', { schema: { params: byId, ...ok(z.array(directoryRow)) } }, ({ params }) =>
      pickedRows(db, thePickList(db, params.id).id),
    );
    /** The list as a file, CSV as an export writes it. */
    app.get('/api/pick-lists/:id/file', { schema: { params: byId } }, ({ params }, reply) => {
      const { id, about } = thePickList(db, params.id);
      const columns = directoryColumns(aboutOf(about));
      const lines = [columns.map(({ name }) => name), ...pickedRows(db, id).map((row) => directoryCells(row))];
      return reply
        .type('text/csv; charset=utf-8')
        .header('content-disposition', `attachment; filename="pick-list-${params.id}.csv"`)
        .send(`\uFEFF${lines.map(harmlessLine).join('')}`);
    });
    app.post(
      '/api/pick-lists/:id/picks',
      { schema: { params: byId, body: picksBody, ...ok(picked) } },
      async ({ params, body }) => {
        const list = thePickList(db, params.id);
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
        const held = body.onlyNew ? heldRows(db, rows) : new Set<string>();
        const chosen = rows.filter(({ id }) => !held.has(id)).slice(0, body.ids ? undefined : body.most);
        const added = inTransaction(db, () => {
          const ids = addPicks(db, list.id, chosen, now());
          decided(list.id, ids, true);
          return ids;
        });
        return { ...thePickList(db, list.id), added: added.length };
      },
    );
    app.delete(
      '/api/pick-lists/:id/picks',
      { schema: { params: byId, querystring: z.object({ row: z.string().max(60) }), ...ok(pickList) } },
      ({ params, query }) => {
        const { id } = thePickList(db, params.id);
        inTransaction(db, () => decided(id, setPicked(db, id, [query.row], false), false));
        return thePickList(db, id);
      },
    );
    /** The picks become a source of a job, taken back as one. */
    app.post(
      '/api/pick-lists/:id/to-job',
      { schema: { params: byId, body: z.object({ jobId: z.int() }), ...ok(z.object({ rows: z.int() })) } },
      ({ params, body: { jobId } }) => {
        const list = thePickList(db, params.id);
        theJob(db, jobId);
        const rows = pickedRows(db, list.id);
        if (rows.length === 0) throw new AppError('no-rows', { name: list.name });
        const about = aboutOf(list.about);
        const origin = { kind: 'picks' as const, listId: list.id };
        inTransaction(db, () => {
          const columns = directoryColumns(about);
          const source = { jobId, name: list.name, origin, about, columns, file: '', rowsRead: rows.length };
          const sourceId = addSource(db, source, 'you', now());
          const add = recordAdder(db);
          rows.forEach((row, i) => add(sourceId, i + 1, directoryCells(row)));
          queue.enqueue(jobId, { kind: 'sift' });
        });
        events.emit({ type: 'job', jobId });
        return { rows: rows.length };
      },
    );
  };
