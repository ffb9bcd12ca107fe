import type { StepKind } from './step';

/** What became of a contact. It has stopped at `step`, or passed them all. */
export type FateCode =
  | 'passed'
  // tidy
  | 'nothing-to-identify'
  // screen
  | 'by-hand'
  | 'title-group'
  | 'rule-words'
  | 'rule-lacks'
  | 'title-near-brief'
  | 'title-not-in-brief'
  | 'suppressed'
  | 'company-full'
  // append
  | 'to-ask'
  | 'no-name-or-domain'
  | 'no-address-found'
  // verify
  | 'to-verify'
  | 'verdict';

export interface Fate {
  /** null: passed every step. */
  step: StepKind | null;
  /** pass: no step stopped it; aside: set aside; look: wants a look; waits: a run has to ask first. */
  state: 'pass' | 'aside' | 'look' | 'waits';
  code: FateCode;
  /** The figures and words that explain the code: the rule, the word found, the near title. */
  why: Record<string, string | number>;
}

export const PASSED: Fate = { step: null, state: 'pass', code: 'passed', why: {} };
