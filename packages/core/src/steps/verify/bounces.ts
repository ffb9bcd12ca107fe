import { normaliseEmail } from '../../tidy/email';

/** What a bounce says of an address: nobody there, its mailbox is full, or that this mail was not wanted, which says nothing of it. */
export type BounceState = 'no-mailbox' | 'full' | 'refused';
export interface Bounce {
  email: string;
  state: BounceState;
}

const ADDRESS = /[^\s<>"',;:()[\]]+@[^\s<>"',;:()[\]]+/;
/** An enhanced status code (RFC 3463), else a reply code (RFC 5321). */
const ENHANCED = /\b([245])\.(\d{1,3})\.(\d{1,3})\b/;
const REPLY = /\b([45]\d\d)\b/;
/** Fields of a delivery status notification (RFC 3464, 2.3). */
const RECIPIENT = /^final-recipient:\s*rfc822;\s*(.+)$/i;
const STATUS = /^status:\s*([245]\.\d{1,3}\.\d{1,3})/i;

/** Subjects of RFC 3463 that speak of the message, the way there or who sent it, and not of the address. */
const SUBJECTS_OF_MAIL = new Set(['3', '4', '6', '7']);

/**
 * Reads bounces: a list of addresses, lines with an address and a code, or delivery status notifications (RFC 3464) one behind the other. An
 * address without a code is taken to be nobody's; one that is only put off for now (4.x.x) is left out.
 *
 * @returns `unread`: lines of a list that hold neither an address nor a code
 */
export function readBounces(text: string): { bounces: Bounce[]; unread: number } {
  const lines = text.split(/\r?\n/);
  return lines.some((line) => RECIPIENT.test(line)) ? readReports(lines) : readList(lines);
}

function readReports(lines: readonly string[]): { bounces: Bounce[]; unread: number } {
  const found = new Map<string, Bounce>();
  let recipient = '';
  for (const line of lines) {
    const named = RECIPIENT.exec(line)?.[1];
    if (named) recipient = normaliseEmail(named);
    const status = STATUS.exec(line)?.[1];
    if (!status || recipient === '') continue;
    const state = stateOf(status);
    if (state) found.set(recipient, { email: recipient, state });
    recipient = '';
  }
  return { bounces: [...found.values()], unread: 0 };
}

function readList(lines: readonly string[]): { bounces: Bounce[]; unread: number } {
  const found = new Map<string, Bounce>();
  let unread = 0;
  for (const line of lines) {
    if (line.trim() === '') continue;
    const email = normaliseEmail(ADDRESS.exec(line)?.[0] ?? '');
    if (email === '') {
      unread++;
      continue;
    }
    const state = stateOf(line.replace(ADDRESS, ''));
    if (state) found.set(email, { email, state });
  }
  return { bounces: [...found.values()], unread };
}

/** By the code in some words; null for what is only put off. */
function stateOf(words: string): BounceState | null {
  const enhanced = ENHANCED.exec(words);
  if (enhanced) {
    const [, kind, subject, detail] = enhanced;
    if (subject === '2' && detail === '2') return 'full';
    if (kind !== '5') return null;
    return SUBJECTS_OF_MAIL.has(subject!) ? 'refused' : 'no-mailbox';
  }
  const reply = REPLY.exec(words)?.[1];
  if (reply === '552' || reply === '452') return 'full';
  if (reply?.startsWith('4')) return null;
  return reply === '554' || reply === '530' ? 'refused' : 'no-mailbox';
}
