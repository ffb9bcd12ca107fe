import { verifyOptions } from '@sieve/core/steps/verify/options';
import { VerdictStrip } from './verdict-strip';
import { VerdictsLink } from './verdicts-link';
import { waitWords, type Chip, type StepView } from '../step-view';

const VERDICTS = ['valid', 'risky', 'invalid', 'unknown'] as const;

export const verifyView: StepView = {
  kind: 'verify',
  detail: (state) => waitWords(state, 'valid only'),
  chips: ({ step, summary }) => [
    ...(summary
      ? VERDICTS.map((verdict): Chip => ({
          words: `${verdict} ${summary.verdicts[verdict].toLocaleString('en-GB')}`,
          count: 0,
          kind: verdict === 'valid' ? 'keep' : '',
        }))
      : []),
    { words: `Fresh for ${verifyOptions.parse(step.options).freshDays} days`, count: 0, kind: '' },
  ],
  action: VerdictsLink,
  strip: VerdictStrip,
  setUp: 'Set up',
  about: '',
  onWords: 'Let only addresses pass whose mailbox answers',
  form: () => import('./verify-form').then((m) => m.VerifyForm),
  buys: {
    words: 'The verifier is paid for each address that it can say something about',
    from: (_state, { mail }) => [mail.through],
  },
  shows: 'email',
};
