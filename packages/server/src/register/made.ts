import type { Database } from 'better-sqlite3';
import { countedAt, type AddressOwner, type MadeAt, type MadeCounts } from '@sieve/core';

/** Somebody whose address is known. */
export type Addressed = AddressOwner & { email: string };

/** Writes how the addresses of a job's people are made, by place; what was written before and still holds stays. */
export function feedMade(client: Database, jobId: number, people: Iterable<Addressed>): void {
  const counts = new Map<string, number>();
  for (const person of people) {
    const { places, made } = countedAt(person.email, person);
    for (const place of places) counts.set(`${place}\n${made}`, (counts.get(`${place}\n${made}`) ?? 0) + 1);
  }
  const known = client.prepare('SELECT place, made, n FROM made WHERE job = ?').all(jobId) as {
    place: string;
    made: string;
    n: number;
  }[];
  const remove = client.prepare('DELETE FROM made WHERE place = ? AND job = ? AND made = ?');
  const write = client.prepare('INSERT OR REPLACE INTO made (place, job, made, n) VALUES (?, ?, ?, ?)');
  for (const { place, made, n } of known) {
    const is = counts.get(`${place}\n${made}`);
    if (is === undefined) remove.run(place, jobId, made);
    if (is === n) counts.delete(`${place}\n${made}`);
  }
  for (const [key, n] of [...counts].sort(([a], [b]) => (a < b ? -1 : 1))) {
    const [place, made] = key.split('\n') as [string, string];
    write.run(place, jobId, made, n);
  }
}

/** Answers how addresses are made that other jobs know. */
export function madeElsewhere(client: Database, jobId: number): MadeAt {
  const select = client
    .prepare<[string, number], [string, number]>(
      'SELECT made, sum(n) FROM made WHERE place = ? AND job <> ? GROUP BY made',
    )
    .raw();
  const known = new Map<string, MadeCounts>();
  return (place) => {
    let counts = known.get(place);
    if (!counts) known.set(place, (counts = new Map(select.all(place, jobId))));
    return counts;
  };
}
