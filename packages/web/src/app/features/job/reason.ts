import { FATE_WORDS, REASON_WORDS, say, stepWords, type ContactRow } from '@sieve/contract';
import type { VerdictReason } from '@sieve/core';

/** Why a row stands where it stands, in words. */
export function reasonOf(row: ContactRow): string {
  if (row.verdict !== '' && (row.fate.state === 'pass' || row.fate.code === 'verdict'))
    return `${row.verdict}: ${REASON_WORDS[row.reason as VerdictReason] ?? ''}`;
  return say(FATE_WORDS[row.fate.code] ?? row.fate.code, row.fate.why);
}

/** The reason as a sentence, with the step it belongs to. */
export function reasonSentence(row: ContactRow): string {
  const reason = reasonOf(row);
  const step = row.fate.step ? stepWords(row.fate.step) : '';
  return step ? `${step}: ${reason}.` : `${reason.charAt(0).toUpperCase()}${reason.slice(1)}.`;
}
