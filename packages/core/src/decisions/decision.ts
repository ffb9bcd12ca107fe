import * as z from 'zod';
import { column } from '../model/column';
import { PERSON_FIELDS } from '../model/person';
import { SITE_ANSWERS } from '../steps/company/options';
import { groupBy } from '../steps/screen/options';
import { sieveStep } from '../steps/sieve';

const recordId = z.int().positive();
const field = z.enum(PERSON_FIELDS);
/** A domain, else a folded name. */
const companyKey = z.string().min(1).max(300);

/**
 * What a person said. It names records, never contacts, so that it survives another sifting; it always
 * wins over what was computed; and it can be taken back.
 */
export const decisionBody = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('bring-in'), sourceId: z.int().positive(), name: z.string() }),
  z.object({ kind: z.literal('set-aside'), recordIds: z.array(recordId).min(1) }),
  z.object({ kind: z.literal('keep'), recordIds: z.array(recordId).min(1), step: z.string().max(60) }),
  /** All who share a value of a field. */
  z.object({
    kind: z.literal('group'),
    by: groupBy,
    value: z.string().min(1),
    fate: z.enum(['keep', 'aside']),
  }),
  z.object({ kind: z.literal('same'), a: recordId, b: recordId }),
  z.object({ kind: z.literal('different'), a: recordId, b: recordId }),
  /** Pairs that show the same, judged together. */
  z.object({
    kind: z.literal('judge'),
    pairs: z
      .array(z.tuple([recordId, recordId]))
      .min(1)
      .max(5000),
    same: z.boolean(),
  }),
  z.object({ kind: z.literal('apart'), recordIds: z.array(recordId).min(2) }),
  z.object({ kind: z.literal('edit'), recordIds: z.array(recordId).min(1), field, value: z.string().max(2000) }),
  /** The value of this record stands as it was tidied, with those that go with it: before others it is merged with, and what was written. */
  z.object({ kind: z.literal('choose'), recordIds: z.array(recordId).min(1), recordId, field }),
  z.object({ kind: z.literal('refuse'), recordId, field }),
  z.object({ kind: z.literal('refuse-like'), field, was: z.string(), is: z.string() }),
  /** Which profile of a directory is theirs; '': none of those that were found. */
  z.object({ kind: z.literal('profile'), recordIds: z.array(recordId).min(1), link: z.string().max(2000) }),
  /** What a company's own website answers to a question. */
  z.object({
    kind: z.literal('site-answer'),
    question: z.string().min(1).max(200),
    domain: z.string().min(1).max(253),
    answer: z.enum(SITE_ANSWERS),
  }),
  /** Whether two companies, by their keys, are one. */
  z.object({ kind: z.literal('companies'), a: companyKey, b: companyKey, same: z.boolean() }),
  /** How the columns of a source are read, in the place of how they were when it came in. */
  z.object({ kind: z.literal('columns'), sourceId: z.int().positive(), columns: z.array(column).min(1).max(500) }),
  z.object({ kind: z.literal('configure'), step: sieveStep }),
]);

export type DecisionBody = z.infer<typeof decisionBody>;

/** A decision that stands (one that was taken back is simply not given to the sieve). */
export interface Decision {
  id: number;
  body: DecisionBody;
}
