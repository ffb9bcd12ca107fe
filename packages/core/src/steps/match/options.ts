import * as z from 'zod';

const likelihoodLine = z.number().min(0).max(1);

export const matchOptions = z.object({
  /** Pairs at least this likely are merged. */
  mergeFrom: likelihoodLine.default(0.9),
  /** Pairs less likely than this stay apart; those between are judged by a person. */
  judgeFrom: likelihoodLine.default(0.3),
  /** Which value survives a merge. */
  survivor: z.enum(['fullest', 'first', 'latest']).default('fullest'),
});
export type MatchOptions = z.output<typeof matchOptions>;
