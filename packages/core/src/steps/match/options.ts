import * as z from 'zod';
import { SURVIVOR_RULES } from '../../match/survive';

const likelihoodLine = z.number().min(0).max(1);

/** Most of the merges that may be wrong, as a share, where the line is set by it. */
export const ACCEPTED_ERROR = { least: 0.001, most: 0.1 };

/** Each stands for those fields that only make sense from one record together. */
export const SURVIVOR_FIELDS = [
  'firstName',
  'title',
  'company',
  'sector',
  'headcount',
  'domain',
  'email',
  'phone',
  'street',
  'profile',
  'note',
] as const;
export type SurvivorField = (typeof SURVIVOR_FIELDS)[number];

export const survivorRule = z.enum(SURVIVOR_RULES);
export type SurvivorRule = z.output<typeof survivorRule>;

export const matchOptions = z.object({
  /** Pairs at least this likely are merged. */
  mergeFrom: likelihoodLine.default(0.8),
  /** The share of merges that may be wrong: the line of merging is set by it; null: it is `mergeFrom`. */
  acceptedError: z.number().min(ACCEPTED_ERROR.least).max(ACCEPTED_ERROR.most).nullable().default(null),
  /** Pairs less likely than this stay apart; those between are judged by a person. */
  judgeFrom: likelihoodLine.default(0.3),
  /** Which value survives a merge. */
  survivor: survivorRule.default('fullest'),
  /** Fields for which another rule holds: for them and those that go with them. */
  survivorOf: z.partialRecord(z.enum(SURVIVOR_FIELDS), survivorRule).default({}),
});
export type MatchOptions = z.output<typeof matchOptions>;
