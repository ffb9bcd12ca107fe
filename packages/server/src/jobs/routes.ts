import { titleKey } from '@sieve/core';
import { configure, jobPatch, newDecision, newJob, rowQuery, type DecisionRow, type SourceRow } from '@sieve/contract';
import { and, desc, eq, isNull } from 'drizzle-orm';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import type { AppContext } from '../app-context';
import { allJobs, createJob, jobById, standingDecisions } from './store';
import { contactView, pairsToJudge, rowPage, titleGroups } from '../sieve/rows';
import { decisions, jobs, rowIssues, sources } from '../db/schema';
import { AppError } from '../errors';

const byId = z.object({ id: z.coerce.number().int().positive() });

/** Jobs, what is in them, and what a person decides about it. */
export const jobRoutes =
  ({ db, queue, events, now }: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    const job = (id: number) => {
      const found = jobById(db, id);
      if (!found) throw new AppError('not-found', { what: 'job' });
      return found;
    };
    const resift = (jobId: number) => {
      queue.enqueue(jobId, 'sift');
      events.emit({ type: 'job', jobId });
    };

    app.get('/api/jobs', () => allJobs(db));
    app.post('/api/jobs', { schema: { body: newJob } }, ({ body }) => job(createJob(db, body, now())));
    app.get('/api/jobs/:id', { schema: { params: byId } }, ({ params }) => job(params.id));
    app.patch('/api/jobs/:id', { schema: { params: byId, body: jobPatch } }, ({ params, body }) => {
      job(params.id);
      if (Object.keys(body).length > 0) db.update(jobs).set(body).where(eq(jobs.id, params.id)).run();
      events.emit({ type: 'job', jobId: params.id });
      return job(params.id);
    });

    app.get('/api/jobs/:id/rows', { schema: { params: byId, querystring: rowQuery } }, ({ params, query }) =>
      rowPage(db, job(params.id).id, query),
    );
    app.get(
      '/api/jobs/:id/contacts/:contact',
      { schema: { params: byId.extend({ contact: z.coerce.number().int() }) } },
      ({ params }) => {
        const found = contactView(db, params.id, params.contact);
        if (!found) throw new AppError('not-found', { what: 'contact' });
        return found;
      },
    );
    app.get('/api/jobs/:id/pairs', { schema: { params: byId } }, ({ params }) =>
      pairsToJudge(db, job(params.id).id, 100),
    );
    app.get('/api/jobs/:id/titles', { schema: { params: byId } }, ({ params }) => {
      const said = new Map<string, 'keep' | 'aside'>();
      for (const { body } of standingDecisions(db, job(params.id).id))
        if (body.kind === 'group') said.set(titleKey(body.title), body.fate);
      return titleGroups(db, params.id, said, titleKey);
    });

    app.get('/api/jobs/:id/sources', { schema: { params: byId } }, ({ params }): SourceRow[] => {
      const brought = new Map(
        db
          .select()
          .from(decisions)
          .where(eq(decisions.jobId, job(params.id).id))
          .all()
          .flatMap(({ id, body, undoneAt }) =>
            body.kind === 'bring-in' ? [[body.sourceId, { decision: id, out: undoneAt !== null }] as const] : [],
          ),
      );
      const count = db.$client.prepare(
        `SELECT (SELECT count(*) FROM records WHERE source_id = @id) AS rows, count(*) AS issues,
           count(CASE WHEN kept = 0 THEN 1 END) AS unread FROM row_issues WHERE source_id = @id`,
      );
      return db
        .select()
        .from(sources)
        .where(eq(sources.jobId, params.id))
        .all()
        .map(({ id, name, createdAt, format }) => ({
          id,
          name,
          createdAt,
          format,
          ...(count.get({ id }) as { rows: number; issues: number; unread: number }),
          ...brought.get(id)!,
        }));
    });
    app.get(
      '/api/jobs/:id/sources/:source/issues',
      { schema: { params: byId.extend({ source: z.coerce.number().int() }) } },
      ({ params }) =>
        db
          .select({
            line: rowIssues.line,
            code: rowIssues.code,
            kept: rowIssues.kept,
            field: rowIssues.field,
            input: rowIssues.input,
          })
          .from(rowIssues)
          .innerJoin(sources, eq(sources.id, rowIssues.sourceId))
          .where(and(eq(rowIssues.sourceId, params.source), eq(sources.jobId, params.id)))
          .limit(5000)
          .all(),
    );

    app.get('/api/jobs/:id/decisions', { schema: { params: byId } }, ({ params }): DecisionRow[] =>
      db
        .select()
        .from(decisions)
        .where(eq(decisions.jobId, params.id))
        .orderBy(desc(decisions.id))
        .limit(200)
        .all()
        .map(({ id, at, body, undoneAt }) => ({ id, at, body, undone: undoneAt !== null })),
    );
    app.post(
      '/api/jobs/:id/decisions',
      { schema: { params: byId, body: newDecision }, bodyLimit: 16 * 1024 * 1024 },
      ({ params, body }) => {
        job(params.id);
        const { id } = db
          .insert(decisions)
          .values({ jobId: params.id, at: now(), body: body.body })
          .returning({ id: decisions.id })
          .get();
        resift(params.id);
        return { id };
      },
    );
    app.post('/api/jobs/:id/steps', { schema: { params: byId, body: configure } }, ({ params, body: { options } }) => {
      job(params.id);
      db.insert(decisions)
        .values({ jobId: params.id, at: now(), body: { kind: 'configure', options } })
        .run();
      resift(params.id);
      return job(params.id);
    });
    app.post('/api/jobs/:id/undo', { schema: { params: byId } }, ({ params }) => {
      const last = db
        .select()
        .from(decisions)
        .where(and(eq(decisions.jobId, params.id), isNull(decisions.undoneAt)))
        .orderBy(desc(decisions.id))
        .get();
      if (!last) throw new AppError('nothing-to-undo');
      return setUndone(params.id, last.id, true);
    });
    app.post(
      '/api/jobs/:id/decisions/:decision',
      {
        schema: { params: byId.extend({ decision: z.coerce.number().int() }), body: z.object({ undone: z.boolean() }) },
      },
      ({ params, body }) => setUndone(params.id, params.decision, body.undone),
    );

    function setUndone(jobId: number, id: number, undone: boolean): DecisionRow {
      const [changed] = db
        .update(decisions)
        .set({ undoneAt: undone ? now() : null })
        .where(and(eq(decisions.id, id), eq(decisions.jobId, jobId)))
        .returning()
        .all();
      if (!changed) throw new AppError('not-found', { what: 'decision' });
      resift(jobId);
      return { id: changed.id, at: changed.at, body: changed.body, undone };
    }
  };
