import { isMailbox } from './email-syntax';
import { isDisposable, isRole } from './kinds';
import type { Facts, Question } from '../model/question';
import type { Judgement, Verdict, VerdictReason } from '../model/verdict';

/** Either what is known, or the question that has to be asked next. */
export type Progress<T> = { done: T; ask?: undefined } | { ask: Question; done?: undefined };

/**
 * From what was observed to a verdict on one address: syntax (RFC 5321), domain and mail server (DNS), mailbox (SMTP),
 * then whether the domain takes mail for anybody.
 *
 * @returns the judgement, or the next question when the facts do not reach
 */
export function judge(email: string, facts: Facts): Progress<Judgement> {
  const say = (verdict: Verdict, reason: VerdictReason, askedAt = 0): Progress<Judgement> => ({
    done: { verdict, reason, askedAt },
  });
  if (!isMailbox(email)) return say('invalid', 'not-an-address');
  const domain = email.slice(email.lastIndexOf('@') + 1);
  const host = facts({ kind: 'mail-host', domain });
  if (!host) return { ask: { kind: 'mail-host', domain } };
  if (host.answer.state === 'no-domain') return say('invalid', 'no-domain', host.askedAt);
  if (host.answer.state === 'none') return say('invalid', 'no-mail-server', host.askedAt);
  if (host.answer.state === 'failed') return say('unknown', 'lookup-failed', host.askedAt);
  if (isDisposable(email)) return say('risky', 'disposable', host.askedAt);

  const mailbox = facts({ kind: 'mailbox', email });
  if (!mailbox) return { ask: { kind: 'mailbox', email } };
  const { state } = mailbox.answer;
  if (state === 'no-mailbox') return say('invalid', 'no-mailbox', mailbox.askedAt);
  if (state === 'full') return say('risky', 'mailbox-full', mailbox.askedAt);
  if (state !== 'accepted') return say('unknown', state, mailbox.askedAt);

  const any = facts({ kind: 'catch-all', domain });
  if (!any) return { ask: { kind: 'catch-all', domain } };
  if (any.answer.state === 'catch-all') return say('risky', 'catch-all', mailbox.askedAt);
  if (isRole(email)) return say('risky', 'role', mailbox.askedAt);
  return say('valid', 'accepted', mailbox.askedAt);
}
