import { decisionBody } from '@sieve/core/model/decision';
import { stepOptions, type Steps } from '@sieve/core/model/step';
import * as z from 'zod';

const jobFields = {
  name: z.string().trim().min(1).max(200),
  folder: z.string().trim().max(200),
  note: z.string().trim().max(2000),
  targetValid: z.int().min(0).max(10_000_000),
  budgetCents: z.int().min(0).max(1_000_000_000),
};

export const newJob = z.object({
  ...jobFields,
  folder: jobFields.folder.default(''),
  note: jobFields.note.default(''),
  targetValid: jobFields.targetValid.default(0),
  budgetCents: jobFields.budgetCents.default(0),
});
export type NewJob = z.output<typeof newJob>;
/** What is left out stays as it is. */
export const jobPatch = z.object(jobFields).partial();

/** How many contacts came to a step and what became of them there. */
export interface StepCount {
  came: number;
  pass: number;
  aside: number;
  look: number;
  waits: number;
}

/** What the last sifting found, kept with the job. */
export interface Summary {
  records: number;
  sources: number;
  edits: number;
  merged: number;
  pairs: number;
  expectedError: number;
  steps: Record<'tidy' | 'match' | 'screen' | 'append' | 'verify', StepCount>;
  verdicts: Record<'valid' | 'risky' | 'invalid' | 'unknown' | 'none', number>;
  /** How many each screen rule set aside; by-hand, suppressed and the like by code. */
  rules: Record<string, number>;
  likelyValid: number;
}

export interface Job extends z.output<typeof newJob> {
  id: number;
  createdAt: number;
  version: number;
  steps: Steps;
  summary: Summary | null;
  spentCents: number;
  decisions: number;
}

export const newDecision = z.object({ body: decisionBody });
export const configure = z.object({ options: stepOptions });

export interface DecisionRow {
  id: number;
  at: number;
  body: z.infer<typeof decisionBody>;
  undone: boolean;
}
