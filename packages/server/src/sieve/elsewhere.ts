import {
  acrossJobs,
  likeNameKeys,
  likeness,
  match,
  personKeys,
  stepIn,
  type AcrossJobs,
  type FindElsewhere,
  type Person,
} from '@sieve/core';
import type { PersonInFull } from '@sieve/contract';
import type { Db } from '../db/open';
import { exportsBesides, jobOfExport } from '../exports/store';
import { jobRow } from '../jobs/store';
import { exportsOf, heldIn, heldVersion, whoIsKnown } from '../register/register';
import { shownOutcome } from './outcomes';
import { personOf, type ContactColumns } from './stored-contact';

/** Names of jobs; null for one that is gone. */
function jobNames(db: Db): (jobId: number) => string | null {
  const names = new Map<number, string | null>();
  return (jobId) => {
    if (!names.has(jobId)) names.set(jobId, jobRow(db, jobId)?.name ?? null);
    return names.get(jobId)!;
  };
}

/** Answers which other jobs hold somebody now, with which other jobs' exports they left, by the keys of the register, and who is alike there. */
export function elsewhereOf(db: Db, jobId: number): FindElsewhere {
  const held = heldIn(db.register);
  const alike = alikeElsewhere(db, jobId);
  const nameOf = jobNames(db);
  const exportJobs = new Map<number, number>();
  const jobOf = (id: number): number => {
    const known = exportJobs.get(id) ?? jobOfExport(db, id) ?? jobId;
    exportJobs.set(id, known);
    return known;
  };
  const names = (ids: Iterable<number>) =>
    [...new Set(ids)].filter((job) => job !== jobId).flatMap((job) => nameOf(job) ?? []);
  return (person) => {
    const keys = personKeys(person);
    return {
      left: names(exportsOf(db.register, keys).map(jobOf)),
      held: names([...held(keys)].filter((job) => job !== null)),
      alike: () => alike(person),
    };
  };
}

/** A contact of another job. */
export interface Alike {
  jobId: number;
  job: string;
  contact: number;
  person: Person;
}

/** Finds whom other jobs hold under a name like somebody's. */
export function alikeElsewhere(db: Db, jobId: number): (person: Person) => Alike[] {
  const known = whoIsKnown(db.register);
  const personIn = contactReader(db);
  const nameOf = jobNames(db);
  return (person) =>
    known(likeNameKeys(person)).flatMap((other) => {
      const job = other.jobId === jobId ? null : nameOf(other.jobId);
      const found = job === null ? undefined : personIn(other.jobId, other.contact);
      return job !== null && found ? [{ ...other, job, person: found }] : [];
    });
}

/** Most that are shown beside a person. */
const MOST_LIKELY = 5;

/** Finds whom other jobs hold that may be somebody, by the lines of this job, the likeliest first. */
export function likelyElsewhere(
  db: Db,
  jobId: number,
  { weights, judgeFrom }: AcrossJobs,
): (person: Person) => PersonInFull['likely'] {
  const likenessOf = likeness(weights);
  const alike = alikeElsewhere(db, jobId);
  return (person) =>
    alike(person)
      .map((other) => ({ ...other, chance: likenessOf(person, other.person) }))
      .filter(({ chance }) => chance === null || chance >= judgeFrom)
      .sort((a, b) => (b.chance ?? 0) - (a.chance ?? 0))
      .slice(0, MOST_LIKELY);
}

/** What weighs people of other jobs, by what a job was last sifted with; null before it was. */
export function acrossOf(db: Db, jobId: number): AcrossJobs | null {
  const { sieve, weights, summary } = jobRow(db, jobId)!;
  const { mergeFrom } = { ...stepIn(sieve, match).options, ...summary };
  return weights && acrossJobs(sieve, { weights, mergeFrom });
}

/** Changes when what other jobs hold does, or one of them was exported. */
export const elsewhereVersion = (db: Db, jobId: number): string =>
  `${heldVersion(db.register, jobId)} held, ${exportsBesides(db, jobId)} exports`;

/** Reads people of other jobs as they are shown there. */
function contactReader(db: Db): (jobId: number, contact: number) => Person | undefined {
  const readers = new Map<number, (contact: number) => Person | undefined>();
  const readerOf = (jobId: number) => {
    const select = db.outcomes.prepare(`SELECT * FROM ${shownOutcome(db, jobId).contacts} WHERE id = ?`).raw();
    return (contact: number) => {
      const columns = select.get(contact) as ContactColumns | undefined;
      return columns && personOf(columns);
    };
  };
  return (jobId, contact) => {
    let read = readers.get(jobId);
    if (!read) readers.set(jobId, (read = readerOf(jobId)));
    return read(contact);
  };
}
