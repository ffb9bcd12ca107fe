import type { MatchOutcome } from '../match/match';
import type { AcrossJobs } from '../match/weigh-elsewhere';
import { match } from '../steps/match/match';
import { screen } from '../steps/screen/screen';
import { stepIn, type Sieve } from '../steps/sieve';

/** Whether a rule asks who other jobs hold, or who left with them. */
export function asksElsewhere(sieve: Sieve): boolean {
  const { on, options } = stepIn(sieve, screen);
  return on && (options.heldElsewhere !== 'pass' || options.leftElsewhere !== 'pass');
}

/** What weighs people of other jobs: the lines of the step that matches, its usual ones while it is off. */
export function acrossJobs(sieve: Sieve, found: Pick<MatchOutcome, 'weights' | 'mergeFrom'>): AcrossJobs {
  const { on, options } = stepIn(sieve, match);
  const usual = match.options.parse({});
  return {
    weights: found.weights,
    mergeFrom: on ? found.mergeFrom : usual.mergeFrom,
    judgeFrom: on ? options.judgeFrom : usual.judgeFrom,
  };
}
