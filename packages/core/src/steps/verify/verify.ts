import { judge } from '../../mail/judge';
import { atAnyAge } from '../../facts/facts';
import { waiting, type Step } from '../step';
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
    const { email } = contact.person;
    const judged = judge(email, env);
    // While it is asked again, the verdict of before is shown.
    contact.judgement = judged.ask
      ? (judge(email, { ...env, facts: atAnyAge(env.facts) }).done ?? judged.done)
      : judged.done;
    if (judged.ask) return waiting(judged);
    const { verdict, reason } = judged.done;
    return verdict === 'valid' ? null : { state: 'aside', code: 'verdict', why: { verdict, reason } };
  },
};
