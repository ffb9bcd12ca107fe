import { suppressionEntry } from '@sieve/core/model/suppression';
import { decisionBody } from '@sieve/core/decisions/decision';
import { sieveStep } from '@sieve/core/steps/sieve';
import * as z from 'zod';
import { newRefund } from './ledger';
import { at, id } from './model';

/** What decisions can be about. */
export const decisionSubject = z.object({
  subject: z.enum(['job', 'search', 'pick-list', 'settings', 'harvest']),
  subjectId: z.coerce.number().int().min(0),
});
export type DecisionSubject = z.output<typeof decisionSubject>;

/** Values that were changed: how they were and how they are. */
const changed = z.record(z.string(), z.unknown());
export const changeBody = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('brief'), before: changed, after: changed }),
  z.object({ kind: z.literal('search'), before: changed, after: changed }),
  z.object({ kind: z.literal('settings'), before: changed, after: changed }),
  z.object({ kind: z.literal('harvest'), before: changed, after: changed }),
  z.object({ kind: z.literal('pick'), rowIds: z.array(z.string()), in: z.boolean() }),
  newRefund.extend({ kind: z.literal('refund'), key: z.string() }),
  z.object({
    kind: z.literal('suppress'),
    entries: z.array(suppressionEntry),
    in: z.boolean(),
  }),
]);
export type ChangeBody = z.output<typeof changeBody>;
/** Everything that the log holds. */
export const loggedBody = z.union([decisionBody, changeBody]);
export type LoggedBody = z.output<typeof loggedBody>;

/** Who decided: the person at this server, or what a schedule did meanwhile. */
export const author = z.enum(['you', 'schedule']);
export type Author = z.output<typeof author>;

/** What a person says of records; bringing in and setting up have routes of their own, which check more. */
export const newDecision = z.object({
  body: decisionBody.refine(({ kind }) => kind !== 'bring-in' && kind !== 'configure', 'this is said elsewhere'),
});
/** `was`: the step as it was read; when somebody has set it up anew since, nothing is changed. */
export const configure = z.object({ step: sieveStep, was: sieveStep });
export const setUndone = z.object({ undone: z.boolean() });

export const decisionRow = z.object({
  id,
  subject: decisionSubject.shape.subject,
  subjectId: z.int(),
  author,
  at,
  body: loggedBody,
  undoneAt: at.nullable(),
});
export type DecisionRow = z.output<typeof decisionRow>;
