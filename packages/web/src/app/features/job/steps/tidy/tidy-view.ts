import { tidyOptions } from '@sieve/core/steps/tidy/options';
import type { StepView } from '../step-view';

export const tidyView: StepView = {
  kind: 'tidy',
  detail: ({ summary }) => (summary ? `${summary.edits.toLocaleString('en-GB')} changes` : ''),
  chips: ({ step }) => [
    {
      words: `Phones without a country are ${tidyOptions.parse(step.options).phoneCountry}`,
      count: 0,
      kind: '',
    },
  ],
  setUp: 'Set up',
  about:
    'Names, companies, titles, places, links, emails and phones are brought into one form. Each change can be seen and refused in the row’s details.',
  form: () => import('./tidy-form').then((m) => m.TidyForm),
  shows: 'place',
};
