import { rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { contactIn, stepIn, tidy } from '@sieve/core';
import { CONTACT_PARTS } from '@sieve/core/model/contact-parts';
import {
  contactAdded,
  contactText,
  directoryRow,
  heldAlready,
  lookedUp,
  lookUpQuery,
  typedContact,
  type Inspection,
  type TypedContact,
} from '@sieve/contract';
import type { FastifyPluginAsyncZod } from 'fastify-type-provider-zod';
import * as z from 'zod';
import type { AppContext } from '../app-context';
import { inTransaction } from '../db/open';
import { AppError } from '../errors';
import { byId, ok } from '../http/schemas';
import { sieveOf } from '../jobs/store';
import { theJob } from '../jobs/the-job';
import { heldRows } from '../register/held-rows';
import { patience } from '../searches/patience';
import { typedCells } from '../sieve/held-contacts';
import { SAYS_WHO } from './store';
import { addSource, countRead, recordAdder } from './store';
import { uploadsDir } from './uploads';

/** One contact: read in what was pasted, looked for in all that is held, looked up by a link, added by hand. */
export const typedRoutes =
  ({ db, lookout, queue, events, directory, settings, dataDir, now, newId }: AppContext): FastifyPluginAsyncZod =>
  async (app) => {
    app.post(
      '/api/jobs/:id/contact-text',
      { schema: { params: byId, body: contactText, ...ok(typedContact) } },
      async ({ params, body: { text } }) => {
        const { phoneCountry } = stepIn(sieveOf(db, theJob(db, params.id).id), tidy).options;
        if (!/^\s*BEGIN:VCARD/i.test(text)) return contactIn(text, phoneCountry, settings().lists.companyWords);
        return inCard(await inspected(text));
      },
    );
    app.post(
      '/api/jobs/:id/contact-held',
      { schema: { params: byId, body: typedContact, ...ok(heldAlready) } },
      ({ params, body }) => lookout.look('heldAlready', theJob(db, params.id).id, body),
    );
    app.post(
      '/api/jobs/:id/contacts',
      { schema: { params: byId, body: typedContact, ...ok(contactAdded) } },
      ({ params, body }) => {
        const { id: jobId } = theJob(db, params.id);
        const { columns, cells } = typedCells(body);
        if (!columns.some(({ target }) => SAYS_WHO.includes(target))) throw new AppError('nothing-mapped');
        return inTransaction(db, () => {
          const name = (body.fullName || body.email || cells[0]!).slice(0, 200);
          const source = {
            jobId,
            name,
            origin: { kind: 'typed' as const },
            about: 'people' as const,
            columns,
            file: '',
          };
          const sourceId = addSource(db, source, 'you', now());
          recordAdder(db)(sourceId, 1, cells);
          countRead(db, sourceId, 1);
          queue.enqueue(jobId, { kind: 'sift' });
          events.emit({ type: 'job', jobId });
          return { sourceId };
        });
      },
    );
    app.get('/api/look-up', { schema: { querystring: lookUpQuery, ...ok(lookedUp) } }, async ({ query: { q } }) => {
      const found = await lookout.look('lookUp', q);
      if (!found) throw new AppError('not-found', { what: 'website or profile link in this' });
      return found;
    });
    app.get(
      '/api/look-up/directory',
      { schema: { querystring: lookUpQuery, ...ok(z.array(directoryRow.extend({ held: z.boolean() }))) } },
      async ({ query: { q } }) => {
        const rows = await directory().find(q, patience());
        const held = heldRows(db, rows);
        return rows.map((row) => ({ ...row, held: held.has(row.id) }));
      },
    );

    /** A card is read as a file of cards is. */
    async function inspected(text: string): Promise<Inspection> {
      const file = join(await uploadsDir(dataDir), newId());
      await writeFile(file, text);
      try {
        const asked = { file, name: 'The card', said: { kind: 'cards' as const }, mapped: null, jobId: null };
        return await lookout.look('file', asked);
      } finally {
        await rm(file, { force: true });
      }
    }
  };

/** The first card as a contact; parts of a name and of a place are put together. */
function inCard({ mapping, preview }: Inspection): TypedContact {
  const cells = preview[0] ?? [];
  const of = (...targets: string[]) =>
    mapping.flatMap(({ target }, i) => (targets.includes(target) && cells[i] ? [cells[i]] : []));
  const out: TypedContact = {};
  for (const part of CONTACT_PARTS) {
    const [value] = of(part);
    if (value) out[part] = value;
  }
  out.fullName ??= of('firstName', 'middleName', 'lastName').join(' ');
  out.place ??= of('street', 'city', 'region', 'postcode', 'country').join(', ');
  return Object.fromEntries(Object.entries(out).filter(([, value]) => value !== ''));
}
