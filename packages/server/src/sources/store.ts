import type { Db } from '../db/open';
import { decisions, sources } from '../db/schema';

type NewSource = Omit<typeof sources.$inferInsert, 'id' | 'createdAt'>;

/** Adds a source to a job, brought in by a decision that can be taken back. */
export function addSource(db: Pick<Db, 'insert'>, source: NewSource, now: number): number {
  const { id } = db
    .insert(sources)
    .values({ ...source, createdAt: now })
    .returning({ id: sources.id })
    .get();
  const body = { kind: 'bring-in' as const, sourceId: id, name: source.name };
  db.insert(decisions).values({ jobId: source.jobId, at: now, body }).run();
  return id;
}
