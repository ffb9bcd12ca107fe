import { questionKey, type Answer, type Facts, type Question } from '../facts/facts';

/** Facts that are read out of answers by the key of their question; none of them ages. */
export const answeredFacts = (answers: ReadonlyMap<string, Answer>): Facts =>
  ((ask: Question) => {
    const answer = answers.get(questionKey(ask));
    return answer ? { fact: { answer, askedAt: 0 } } : { fact: null, ask, silent: null, stale: null };
  }) as Facts;
