import * as z from 'zod';
import { at, change, count, fate, id, personField } from './model';
import { contactView, personElsewhere } from './sieve';

/** Where a value came from. */
export const valueOrigin = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('record'), recordId: id, source: z.string(), line: z.int(), at }),
  z.object({ kind: z.literal('you'), at }),
  /** The records of others at the company agree on it. */
  z.object({ kind: z.literal('colleagues') }),
  /** Taken from their profile in the directory; `sure`: how likely it is theirs. */
  z.object({ kind: z.literal('directory'), sure: z.number() }),
  /** What a service knows of the company, the phone or the address; `sure`: how likely it is theirs, where that was weighed. */
  z.object({ kind: z.literal('service'), name: z.string(), sure: z.number().optional() }),
  /** Made of the name by the pattern of its domain. */
  z.object({ kind: z.literal('pattern') }),
  /** `cents`: what it cost; null when it was given for nothing. */
  z.object({ kind: z.literal('finder'), name: z.string(), cents: count.nullable(), at }),
]);
export type ValueOrigin = z.output<typeof valueOrigin>;

const parts = z.partialRecord(personField, z.string());

/** One value of a line: the one that stands, or another that could. */
export const heldValue = z.object({
  /** By field; only those that are not empty. */
  parts,
  stands: z.boolean(),
  origins: z.array(valueOrigin),
  /** What tidying did to the first record's values. */
  changes: z.array(change),
});
export type HeldValue = z.output<typeof heldValue>;

/** Fields that stand in one line, and how its value reads. */
export type HeldParts = z.output<typeof parts>;

/** One contact in full. */
export const personInFull = z.object({
  contact: contactView,
  /** What is known of the person, line by line: the fields that go together, and their values; empty where nothing is known. */
  lines: z.array(z.object({ fields: z.array(personField), values: z.array(heldValue) })),
  /** When its verdict was given and until when it is fresh, and the verifier that gave it, '' for the mail server itself; null without one. */
  verdict: z.object({ askedAt: at, freshUntil: at, by: z.string() }).nullable(),
  /** The jobs that hold the same person, this one first. */
  jobs: z.array(z.object({ jobId: id, contact: id, fate })),
  /** Whom other jobs hold that may be the same, the likeliest first, where none surely is; `chance` null where too little is known to say. */
  likely: z.array(personElsewhere),
  /** The exports that it left with. */
  exports: z.array(z.object({ id, jobId: id, at, files: z.array(z.string()) })),
});
export type PersonInFull = z.output<typeof personInFull>;
