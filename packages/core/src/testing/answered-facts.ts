import { ANY_AGE, answeredBy, known, questionKey, type Answer, type Facts, type Question } from '../facts/facts';

/** By what an answer is kept of a question. */
export const keyOf = (ask: Question): string => `${ask.kind} ${answeredBy(ask)} ${questionKey(ask)}`;

/** Facts that are read out of answers by `keyOf`; none of them ages. */
export const answeredFacts =
  (answers: ReadonlyMap<string, Answer>): Facts =>
  (ask: Question) => {
    const answer = answers.get(keyOf(ask));
    return known(ask, answer ? [{ answer, askedAt: 0 }] : [], 0, ANY_AGE);
  };
