/** The figures and words that explain a code: the rule, the word found, the near title. */
export type Why = Record<string, string | number>;

/** What became of a contact. */
export interface Fate {
  /** Id of the step that it stopped at; null: it passed every step. */
  step: string | null;
  /** pass: no step stopped it; aside: set aside; look: wants a look; waits: a run has to ask first. */
  state: 'pass' | 'aside' | 'look' | 'waits';
  /** Why, as a code of its step; the words stand in the contract's table. */
  code: string;
  why: Why;
}

export const PASSED: Fate = { step: null, state: 'pass', code: 'passed', why: {} };
