import { appendEmailOptions } from '@sieve/core/steps/append-email/options';
import { many, waitWords, type Chip, type StepView } from '../step-view';

export const appendEmailView: StepView = {
  kind: 'append-email',
  detail: (state) => {
    const { finders } = appendEmailOptions.parse(state.step.options);
    return waitWords(state, `patterns + ${many(finders.length, 'finder', 'finders')}`);
  },
  chips: ({ step }, finderName) => {
    const { candidates, finders } = appendEmailOptions.parse(step.options);
    return [
      { words: step.on ? `${candidates} addresses tried from patterns` : 'Off', count: 0, kind: '' },
      ...finders.map((finder): Chip => ({ words: `then ${finderName(finder)}`, count: 0, kind: 'keep' })),
    ];
  },
  setUp: 'Set up',
  about: 'Each finder is paid as it charges, and the budget of the job is never passed.',
  onWords: 'Look for addresses that are lacking',
  form: () => import('./append-email-form').then((m) => m.AppendEmailForm),
  seeks: 'addresses',
  shows: 'email',
};
