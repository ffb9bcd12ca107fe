export const VERDICTS = ['valid', 'risky', 'invalid', 'unknown'] as const;
export type Verdict = (typeof VERDICTS)[number];

export type VerdictReason =
  | 'accepted'
  | 'catch-all'
  | 'bounces-later'
  | 'role'
  | 'disposable'
  | 'mailbox-full'
  | 'not-an-address'
  | 'no-domain'
  | 'no-mail-server'
  | 'no-mailbox'
  | 'refused-us'
  | 'try-later'
  | 'no-answer'
  | 'lookup-failed';

/** What is known of one address, always with its reason. `askedAt` in ms since 1970, 0 when nothing was asked. */
export interface Judgement {
  verdict: Verdict;
  reason: VerdictReason;
  askedAt: number;
}
