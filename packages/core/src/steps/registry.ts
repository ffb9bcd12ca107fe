import { appendEmail } from './append-email/append-email';
import { appendPhone } from './append-phone/append-phone';
import { company } from './company/company';
import { match } from './match/match';
import { owner } from './owner/owner';
import { profile } from './profile/profile';
import { screen } from './screen/screen';
import type { Step } from './step';
import { tidy } from './tidy/tidy';
import { verify } from './verify/verify';

/** Every step there is, in the order of a new sieve. */
export const STEPS: Step[] = [tidy, match, owner, screen, profile, company, appendEmail, verify, appendPhone].map(
  (step) => step as unknown as Step,
);

/** Throws for a kind that is not registered. */
export function stepOf(kind: string): Step {
  const step = STEPS.find((known) => known.kind === kind);
  if (!step) throw new Error(`unknown step: ${kind}`);
  return step;
}
