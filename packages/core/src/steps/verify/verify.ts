import { judge } from '../../mail/judge';
import type { Step } from '../step';
import { verifyOptions, type VerifyOptions } from './options';

/** Sets aside every address that is not valid. A contact without one passes: there is nothing to verify. */
export const verify: Step<VerifyOptions> = {
  kind: 'verify',
  options: verifyOptions,
  about: 'contact',
  after: ['match', 'append-email'],
  optional: true,
  asks: true,
  prepare: (_all, _options, env) => (contact) => {
    if (contact.person.email === '') return null;
    const judged = judge(contact.person.email, env);
    contact.judgement = judged.done;
    if (judged.ask) return { state: 'waits', ask: judged.ask, silent: judged.silent };
    const { verdict, reason } = judged.done;
    return verdict === 'valid' ? null : { state: 'aside', code: 'verdict', why: { verdict, reason } };
  },
};
