import { FATE_WORDS, REASON_WORDS, say, stepWords, type ContactRow, type ContactView } from '@sieve/contract';
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

const COMPARED_WORDS: Record<string, string> = {
  firstName: 'first name',
  lastName: 'last name',
  email: 'email',
  phone: 'phone',
  profile: 'profile link',
  company: 'company',
  city: 'place',
  title: 'title',
  suffix: 'suffix',
};

/** What the records of a contact agreed on, strongest first; '' for a single record. */
export function agreedOn({ evidence }: ContactView): string {
  return (evidence[0]?.evidence ?? [])
    .filter(({ level, bits }) => level > 1 && bits > 0.5)
    .sort((a, b) => b.bits - a.bits)
    .slice(0, 4)
    .map(({ field }) => COMPARED_WORDS[field])
    .join(', ');
}

/** What could not be used of the records of a contact. */
export const issuesOf = ({ recordViews }: ContactView) =>
  recordViews.flatMap(({ issues }) => issues.filter(({ code }) => code !== 'nothing-to-identify'));
