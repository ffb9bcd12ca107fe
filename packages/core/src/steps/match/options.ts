import * as z from 'zod';

const likelihoodLine = z.number().min(0).max(1);

/** Most of the merges that may be wrong, as a share, where the line is set by it. */
export const ACCEPTED_ERROR = { least: 0.001, most: 0.1 };

export const matchOptions = z.object({
  /** Pairs at least this likely are merged. */
  mergeFrom: likelihoodLine.default(0.8),
  /** The share of merges that may be wrong: the line of merging is set by it; null: it is `mergeFrom`. */
  acceptedError: z.number().min(ACCEPTED_ERROR.least).max(ACCEPTED_ERROR.most).nullable().default(null),
  /** Pairs less likely than this stay apart; those between are judged by a person. */
  judgeFrom: likelihoodLine.default(0.3),
  /** Which value survives a merge. */
  survivor: z.enum(['fullest', 'first', 'latest']).default('fullest'),
});
export type MatchOptions = z.output<typeof matchOptions>;
