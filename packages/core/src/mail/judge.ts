import type { Facts, Wanted } from '../facts/facts';
import type { Judgement, Verdict, VerdictReason } from '../model/verdict';
import { isMailbox } from './email-syntax';
import type { WordLists } from '../model/word-lists';
import { isDisposable, isRole } from '../words/mail';

/** A domain is doubted from so many accepted addresses on whose mail came back. Common practice, no source. */
const BOUNCED = 2;

/**
 * From what was observed to a verdict on one address: syntax (RFC 5321), domain and mail server (DNS), mailbox (SMTP),
 * then whether the domain takes mail for anybody, or sends back what it took. A verdict is as old as the oldest answer that it rests on.
 *
 * @returns the judgement; while something has to be asked it is `unknown` for the reason of the last silence, null before any
 */
export function judge(
  email: string,
  { facts, lists }: { facts: Facts; lists: Pick<WordLists, 'disposableMail'> },
): { done: Judgement; ask?: undefined } | ({ done: Judgement | null } & Wanted) {
  const say = (verdict: Verdict, reason: VerdictReason, askedAt = 0) => ({ done: { verdict, reason, askedAt } });
  const wait = ({ ask, silent, stale }: Wanted) => ({
    ask,
    silent,
    stale,
    done: silent === null ? null : say('unknown', silent as VerdictReason).done,
  });
  if (!isMailbox(email)) return say('invalid', 'not-an-address');
  const domain = email.slice(email.lastIndexOf('@') + 1);
  const host = facts({ kind: 'mail-host', domain });
  if (!host.fact) return wait(host);
  const hostAt = host.fact.askedAt;
  const { state: hostState } = host.fact.answer;
  if (hostState === 'no-domain') return say('invalid', 'no-domain', hostAt);
  if (hostState === 'none') return say('invalid', 'no-mail-server', hostAt);
  if (isDisposable(email, lists.disposableMail)) return say('risky', 'disposable', hostAt);

  const mailbox = facts({ kind: 'mailbox', email });
  if (!mailbox.fact) return wait(mailbox);
  const mailboxAt = Math.min(hostAt, mailbox.fact.askedAt);
  const { state } = mailbox.fact.answer;
  if (state === 'no-mailbox') return say('invalid', 'no-mailbox', mailboxAt);
  if (state === 'no-server') return say('invalid', 'no-mail-server', mailboxAt);
  if (state === 'full') return say('risky', 'mailbox-full', mailboxAt);
  if (state !== 'accepted') return say('unknown', state, mailboxAt);

  const { takesAny } = mailbox.fact.answer;
  const any = takesAny === undefined ? facts({ kind: 'catch-all', domain }) : null;
  if (any && !any.fact) return wait(any);
  const allAt = Math.min(mailboxAt, any?.fact.askedAt ?? mailboxAt);
  if (takesAny ?? any?.fact.answer.state === 'catch-all') return say('risky', 'catch-all', allAt);
  const cameBack = facts({ kind: 'bounces', domain }).fact?.answer.addresses ?? [];
  if (cameBack.length >= BOUNCED || cameBack.includes(email)) return say('risky', 'bounces-later', allAt);
  if (isRole(email)) return say('risky', 'role', allAt);
  return say('valid', 'accepted', allAt);
}
